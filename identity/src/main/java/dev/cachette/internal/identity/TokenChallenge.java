// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import com.nimbusds.oauth2.sdk.ErrorObject;
import dev.cachette.http.Response;

/**
 * The refusal of a resource (RFC 6750 section 3).
 *
 * @param header the value of {@code WWW-Authenticate}
 */
public record TokenChallenge(int status, String header) {

  private static final int UNAUTHORIZED = 401;

  /** Returns the refusal for what is wrong with a token. */
  public static TokenChallenge of(TokenCheck check, TokenCheck.Outcome outcome) {
    return new TokenChallenge(
        outcome.error().map(ErrorObject::getHTTPStatusCode).orElse(UNAUTHORIZED),
        Bearer.challenge("Bearer", outcome.error(), String.join(" ", check.scopes())));
  }

  /** Returns it as a response. */
  public Response response() {
    return IdentityResponses.with(IdentityResponses.empty(status), "www-authenticate", header);
  }
}
