// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import com.nimbusds.oauth2.sdk.util.URLUtils;
import dev.cachette.http.Body;
import dev.cachette.http.Header;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Uri;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;

/**
 * Tells clients that a user has signed out (OpenID Connect Back-Channel Logout 1.0).
 *
 * @param sending sends a request, past the session
 */
public record LogoutNotices(Provider provider, Consumer<Request> sending) {

  /** Sends a logout token to each client that has asked for them. */
  public void send(User user, Instant now) {
    for (ClientRecord client : provider.clients().all()) {
      client
          .backChannelLogout()
          .ifPresent(
              uri -> {
                String token = provider.tokens().logoutToken(client.id(), user, now);
                sending.accept(
                    new Request(
                        "POST",
                        Uri.parse(uri.toString()),
                        Headers.of(
                            List.of(
                                new Header("content-type", "application/x-www-form-urlencoded"))),
                        Body.of(
                            URLUtils.serializeParameters(Map.of("logout_token", List.of(token))))));
              });
    }
  }
}
