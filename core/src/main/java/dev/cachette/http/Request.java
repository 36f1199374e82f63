package dev.cachette.http;

import static dev.cachette.http.Tokens.requireToken;

import dev.cachette.internal.text.Secrets;

/**
 * A request as it arrived.
 *
 * @param method the method, in the case it was sent in (methods are case-sensitive, RFC 9110
 *     section 9.1)
 * @param uri where it was meant to go, whatever the Host header says
 * @param headers its header fields
 * @param body its content, empty if it had none
 */
public record Request(String method, Uri uri, Headers headers, Body body) {

  /**
   * Checks the method.
   *
   * @throws IllegalArgumentException if the method is no token
   */
  public Request {
    requireToken("A method", method);
  }

  /** The body as text, in the charset that the content type names, else UTF-8. */
  public String text() {
    return Texts.of(headers, body);
  }

  /** The request line: method and URI, with tokens and passwords in its query masked. */
  @Override
  public String toString() {
    return method + " " + Secrets.maskedFields(uri.toString());
  }
}
