package dev.cachette.cassette;

import dev.cachette.answer.Trouble;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import java.time.Duration;
import java.time.Instant;
import java.util.Locale;
import java.util.Optional;

/**
 * One request, and what came of it: a response, or a trouble. Files of other programs also hold
 * requests of which nothing came; these are never replayed.
 *
 * @param started when the request was sent
 * @param time from then until the response was there as a whole
 * @param protocol what it was carried by: {@code HTTP/1.1} or {@code HTTP/2}
 * @param request the request
 * @param response the response, with its body in the content coding that it was sent in; empty if
 *     there was none
 * @param trouble what went wrong in its place; empty if nothing did
 */
public record Exchange(
    Instant started,
    Duration time,
    String protocol,
    Request request,
    Optional<Response> response,
    Optional<Trouble.Kind> trouble) {

  /** A request that was answered. */
  public static Exchange answered(
      Instant started, Duration time, String protocol, Request request, Response response) {
    return new Exchange(started, time, protocol, request, Optional.of(response), Optional.empty());
  }

  /** A request that met trouble. */
  public static Exchange failed(
      Instant started, Duration time, Request request, Trouble.Kind trouble) {
    return new Exchange(started, time, "HTTP/1.1", request, Optional.empty(), Optional.of(trouble));
  }

  /** The same with another request. */
  public Exchange with(Request other) {
    return new Exchange(started, time, protocol, other, response, trouble);
  }

  /** The same with another response. */
  public Exchange with(Response other) {
    return new Exchange(started, time, protocol, request, Optional.of(other), Optional.empty());
  }

  /** Whether it can be replayed. */
  public boolean isAnswered() {
    return response.isPresent() || trouble.isPresent();
  }

  /** What came of it, in a word: the status, or the trouble. */
  public String outcome() {
    return response
        .map(it -> Integer.toString(it.status()))
        .or(() -> trouble.map(Exchange::words))
        .orElse("no answer");
  }

  private static String words(Trouble.Kind kind) {
    return kind.name().toLowerCase(Locale.ROOT).replace('_', ' ');
  }

  /** The request line and the outcome. */
  @Override
  public String toString() {
    return request + "  ->  " + outcome();
  }
}
