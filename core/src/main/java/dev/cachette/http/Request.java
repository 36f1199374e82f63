// SPDX-License-Identifier: Apache-2.0
package dev.cachette.http;

import static dev.cachette.http.Tokens.requireToken;

import dev.cachette.internal.secret.Masking;
import dev.cachette.internal.text.Printable;
import java.util.Set;

/**
 * A request as it arrived.
 *
 * @param method the method, as sent (methods are case-sensitive, RFC 9110 section 9.1)
 * @param uri the intended destination, whatever the Host header says
 * @param headers its header fields
 * @param body its content, empty if it had none
 */
public record Request(String method, Uri uri, Headers headers, Body body) {

  private static final Set<String> IDEMPOTENT =
      Set.of("GET", "HEAD", "OPTIONS", "TRACE", "PUT", "DELETE");

  /**
   * Validates the method.
   *
   * @throws IllegalArgumentException if the method is not a token
   */
  public Request {
    requireToken("A method", method);
  }

  /** Returns the body as text, in the charset of its content type or UTF-8. */
  public String text() {
    return Texts.of(headers, body);
  }

  /** Returns true if it may be repeated: its method is idempotent (RFC 9110 section 9.2.2). */
  public boolean isIdempotent() {
    return IDEMPOTENT.contains(method);
  }

  /** Returns the request line: method and URI, with tokens and passwords in its query masked. */
  @Override
  public String toString() {
    return Printable.of(method + " " + Masking.url(uri.toString()));
  }
}
