// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import dev.cachette.http.Response;
import dev.cachette.identity.option.IdentityFault;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;

/** The tokens for a grant (RFC 6749 section 5.1, OpenID Connect Core section 3.1.3.3). */
record TokenResponse(IdentityCall call, Grant grant) {

  /** Returns tokens without a refresh token. */
  Response withoutRefresh() {
    return IdentityResponses.json(200, tokens());
  }

  /** Returns tokens with a refresh token. */
  Response withRefresh() {
    return with(StoredGrants.random());
  }

  /** Returns tokens with a refresh token instead of another one. */
  Response refreshing(StoredGrants.Refresh replaced) {
    return with(replaced.family());
  }

  private Response with(String family) {
    Map<String, Object> members = tokens();
    Provider provider = call.provider();
    members.put(
        "refresh_token",
        provider
            .grants()
            .add(
                new StoredGrants.Refresh(
                    grant, family, call.now().plus(provider.lifetimes().refreshToken()))));
    return IdentityResponses.json(200, members);
  }

  /** Returns the members of the response. */
  Map<String, Object> tokens() {
    Provider provider = call.provider();
    Optional<IdentityFault> fault = provider.faults().take(PlannedFaults.IN_TOKENS);
    String access = provider.tokens().accessToken(grant, call.now(), fault);
    Map<String, Object> members = new LinkedHashMap<>();
    members.put("access_token", access);
    members.put("token_type", grant.thumbprint().isPresent() ? "DPoP" : "Bearer");
    members.put("expires_in", provider.lifetimes().accessToken().toSeconds());
    if (!grant.scopes().isEmpty()) {
      members.put("scope", grant.scope());
    }
    Optional<User> user = grant.user().flatMap(provider.accounts()::named);
    if (user.isPresent() && grant.scopes().contains("openid")) {
      members.put(
          "id_token", provider.tokens().idToken(grant, user.get(), access, call.now(), fault));
    }
    return members;
  }
}
