// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import com.nimbusds.jwt.JWTClaimsSet;
import com.nimbusds.jwt.SignedJWT;
import com.nimbusds.oauth2.sdk.util.URLUtils;
import dev.cachette.http.Response;
import java.text.ParseException;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Ends the session of a user, as a client asks (OpenID Connect RP-Initiated Logout 1.0). */
final class LogoutEndpoint {

  private LogoutEndpoint() {}

  static Response respond(IdentityCall call, LogoutNotices notices) {
    Optional<JWTClaimsSet> hint = call.parameter("id_token_hint").flatMap(it -> read(call, it));
    if (call.parameter("id_token_hint").isPresent() && hint.isEmpty()) {
      return Pages.message(
          400, "Error: invalid_request", "The id_token_hint is no token of this provider.");
    }
    hint.ifPresent(
        it -> {
          String session = String.valueOf(it.getClaim("sid"));
          call.provider().grants().endSession(session);
          call.provider().issued().revoke(session);
          call.provider()
              .accounts()
              .withSubject(it.getSubject())
              .ifPresent(user -> notices.send(user, call.now()));
        });
    Response response =
        call.parameter("post_logout_redirect_uri")
            .map(it -> IdentityResponses.redirect(it + state(call, it)))
            .orElseGet(() -> Pages.message(200, "Signed out", "You can close this page."));
    return IdentityResponses.with(response, "set-cookie", SignIns.endingCookie());
  }

  private static String state(IdentityCall call, String uri) {
    return call.parameter("state")
        .map(
            it ->
                (uri.contains("?") ? "&" : "?")
                    + URLUtils.serializeParameters(Map.of("state", List.of(it))))
        .orElse("");
  }

  /** An expired token is a hint as well. */
  private static Optional<JWTClaimsSet> read(IdentityCall call, String token) {
    try {
      SignedJWT signed = SignedJWT.parse(token);
      return call.provider().keys().haveSigned(signed)
          ? Optional.of(signed.getJWTClaimsSet())
          : Optional.empty();
    } catch (ParseException malformed) {
      return Optional.empty();
    }
  }
}
