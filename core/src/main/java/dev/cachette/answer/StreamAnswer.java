// SPDX-License-Identifier: Apache-2.0
package dev.cachette.answer;

import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Response;
import dev.cachette.internal.answer.Span;
import dev.cachette.internal.answer.Timing;
import java.time.Duration;
import java.util.List;
import java.util.Optional;

/**
 * An answer whose body is sent piece by piece, without a known length: chunked in HTTP/1.1 (RFC
 * 9112 section 7.1), as DATA frames in HTTP/2. Created by {@link Answers#stream} and {@link
 * Answers#events}. Every modifier returns a new answer.
 */
public final class StreamAnswer extends Timed<StreamAnswer> {

  private final Response head;
  private final List<Body> pieces;
  private final Optional<Feed> feed;
  private final Timing timing;

  private StreamAnswer(Response head, List<Body> pieces, Optional<Feed> feed, Timing timing) {
    this.head = head;
    this.pieces = List.copyOf(pieces);
    this.feed = feed;
    this.timing = timing;
  }

  static StreamAnswer of(String contentType, List<Body> pieces, Optional<Feed> feed) {
    Headers headers = Headers.none().with("content-type", contentType);
    return new StreamAnswer(new Response(200, headers, Body.empty()), pieces, feed, Timing.AT_ONCE);
  }

  /**
   * Returns this answer with another status.
   *
   * @throws IllegalArgumentException if the code is not 200 to 599, or has no content
   */
  public StreamAnswer status(int code) {
    ResponseAnswer checked = ResponseAnswer.of("text/plain", Body.of("-")).status(code);
    return with(new Response(checked.response().status(), head.headers(), head.body()));
  }

  /**
   * Returns this answer with a header, as {@link ResponseAnswer#header} does.
   *
   * @throws IllegalArgumentException if the header is derived from the body, or is malformed
   */
  public StreamAnswer header(String name, String... values) {
    ResponseAnswer.requireFree(name, values);
    return with(new Response(head.status(), head.headers().with(name, values), head.body()));
  }

  /** Pauses for this long between two pieces. */
  public StreamAnswer pausing(Duration pause) {
    return timed(timing.pieces(1, Span.of(pause)));
  }

  /** Returns status and headers. */
  Response head() {
    return head;
  }

  /** Returns the pieces that are sent first. */
  List<Body> pieces() {
    return pieces;
  }

  /** Returns the feed that sends the rest, if there is one. */
  Optional<Feed> feed() {
    return feed;
  }

  @Override
  Timing timing() {
    return timing;
  }

  @Override
  StreamAnswer timed(Timing other) {
    return new StreamAnswer(head, pieces, feed, other);
  }

  private StreamAnswer with(Response other) {
    return new StreamAnswer(other, pieces, feed, timing);
  }

  /** Returns the status and a short description. */
  @Override
  public String toString() {
    return head.status() + " a stream";
  }
}
