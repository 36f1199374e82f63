package dev.cachette.http;

/**
 * A response as it was given.
 *
 * @param status the status code, 200 to 599
 * @param headers its header fields
 * @param body its content, empty if it had none
 * @param trailers the fields behind the content (RFC 9110 section 6.5), mostly none
 */
public record Response(int status, Headers headers, Body body, Headers trailers) {

  /** A response without trailers. */
  public Response(int status, Headers headers, Body body) {
    this(status, headers, body, Headers.none());
  }

  /** The body as text, in the charset that the content type names, else UTF-8. */
  public String text() {
    return Texts.of(headers, body);
  }

  /** The status code alone. */
  @Override
  public String toString() {
    return Integer.toString(status);
  }
}
