// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import java.time.Clock;
import java.time.Instant;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * Tokens that a test takes without a flow.
 *
 * @param clock the time of the session
 */
public record ReadyTokens(Provider provider, Clock clock) {

  /** Returns an access token. */
  public String access(String user, Set<String> scopes) {
    ClientRecord client =
        provider.clients().all().stream().findFirst().orElse(ClientRecord.of("test"));
    return provider
        .tokens()
        .accessToken(grant(user, client, scopes), clock.instant(), Optional.empty());
  }

  /** Returns an ID token, with all claims of its user. */
  public String id(String user, String clientId) {
    Set<String> scopes =
        new LinkedHashSet<>(List.of("openid", "profile", "email", "address", "phone"));
    Grant grant = grant(user, ClientRecord.of(clientId), scopes);
    Instant now = clock.instant();
    String access = provider.tokens().accessToken(grant, now, Optional.empty());
    return provider
        .tokens()
        .idToken(
            grant, provider.accounts().named(user).orElseThrow(), access, now, Optional.empty());
  }

  private Grant grant(String user, ClientRecord client, Set<String> scopes) {
    List<String> audience = client.audience().isEmpty() ? List.of(client.id()) : client.audience();
    return Grant.of(client, Optional.of(user), scopes, audience, clock.instant());
  }
}
