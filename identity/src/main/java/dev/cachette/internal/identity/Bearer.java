// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import com.nimbusds.oauth2.sdk.ErrorObject;
import dev.cachette.http.Request;
import java.util.Locale;
import java.util.Optional;

/** The token of a request (RFC 6750 section 2, RFC 9449 section 7.1). */
final class Bearer {

  private Bearer() {}

  /**
   * A token.
   *
   * @param scheme {@code bearer} or {@code dpop}
   */
  record Sent(String scheme, String token) {}

  /** Returns the token of a request; empty if there is none. */
  static Optional<Sent> in(Request request) {
    return request
        .headers()
        .first("authorization")
        .filter(it -> it.matches("(?i)(bearer|dpop) +\\S+"))
        .map(
            it ->
                new Sent(
                    it.substring(0, it.indexOf(' ')).toLowerCase(Locale.ROOT),
                    it.substring(it.lastIndexOf(' ') + 1)));
  }

  /** Returns the challenge of a resource (RFC 6750 section 3). */
  static String challenge(String scheme, Optional<ErrorObject> error, String scope) {
    StringBuilder challenge = new StringBuilder(scheme);
    error.ifPresent(
        it ->
            challenge
                .append(" error=\"")
                .append(it.getCode())
                .append("\", error_description=\"")
                .append(it.getDescription().replaceAll("[\"\\\\]", "'"))
                .append('"'));
    if (!scope.isEmpty()) {
      challenge.append(error.isPresent() ? ", " : " ").append("scope=\"").append(scope).append('"');
    }
    return challenge.toString();
  }
}
