package dev.cachette.answer;

import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Response;

/**
 * An answer that is a plain response: a status, headers and a body. Every modifier returns a new
 * answer and leaves this one as it is.
 */
public final class ResponseAnswer implements Answer {

  private final Response response;

  ResponseAnswer(Response response) {
    this.response = response;
  }

  static ResponseAnswer of(String contentType, Body body) {
    return new ResponseAnswer(
        new Response(200, Headers.none().with("content-type", contentType), body));
  }

  /**
   * This answer with another status.
   *
   * @param code 200 to 599
   * @throws IllegalArgumentException if the code is another, or is 204, 205 or 304, which carry no
   *     content, and this answer has some
   */
  public ResponseAnswer status(int code) {
    if (code < 200 || code > 599) {
      throw new IllegalArgumentException(
          "A response has a status from 200 to 599, not " + code + ".");
    }
    boolean contentless = code == 204 || code == 205 || code == 304;
    if (contentless && !response.body().isEmpty()) {
      throw new IllegalArgumentException(
          String.format(
              "A response with status %d carries no content, but this answer has %d bytes. "
                  + "Mend: begin with Answers.status(%d).",
              code, response.body().size(), code));
    }
    return new ResponseAnswer(new Response(code, response.headers(), response.body()));
  }

  /**
   * This answer with a header set: a header of that name that is already there is replaced, and
   * several values make several header fields, in this order.
   *
   * @throws IllegalArgumentException if there is no value, if the name or a value is malformed, or
   *     if the header is {@code content-length} or {@code transfer-encoding}, which follow from the
   *     body
   */
  public ResponseAnswer header(String name, String... values) {
    if (values == null || values.length == 0) {
      throw new IllegalArgumentException("The header \"" + name + "\" is given no value.");
    }
    if ("content-length".equalsIgnoreCase(name) || "transfer-encoding".equalsIgnoreCase(name)) {
      throw new IllegalArgumentException(
          "The header \"" + name + "\" follows from the body. Mend: leave it out.");
    }
    return new ResponseAnswer(
        new Response(response.status(), response.headers().with(name, values), response.body()));
  }

  /** What is sent. */
  public Response response() {
    return response;
  }

  /** Status, headers with secrets masked, and the size of the body. */
  @Override
  public String toString() {
    return response.status() + " " + response.body();
  }
}
