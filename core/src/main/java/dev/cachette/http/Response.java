// SPDX-License-Identifier: Apache-2.0
package dev.cachette.http;

/**
 * A response as it was sent.
 *
 * @param status the status code, 200 to 599
 * @param headers its header fields
 * @param body its content, empty if it had none
 * @param trailers the fields after the content (RFC 9110 section 6.5), usually none
 */
public record Response(int status, Headers headers, Body body, Headers trailers) {

  /** Returns a response without trailers. */
  public Response(int status, Headers headers, Body body) {
    this(status, headers, body, Headers.none());
  }

  /** Returns the body as text, in the charset of its content type or UTF-8. */
  public String text() {
    return Texts.of(headers, body);
  }

  /** Returns the status code. */
  @Override
  public String toString() {
    return Integer.toString(status);
  }
}
