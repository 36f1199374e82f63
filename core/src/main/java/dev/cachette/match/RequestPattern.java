package dev.cachette.match;

import dev.cachette.http.Request;
import dev.cachette.internal.match.RequestLine;
import dev.cachette.internal.match.RequestLineParser;
import java.util.Comparator;
import java.util.Map;
import java.util.Optional;

/**
 * Which requests are meant, as a value that stubs and assertions can share.
 *
 * <p>A pattern is written as a request line: a method, a space, and a URL template.
 *
 * <ul>
 *   <li>{@code GET https://tides.example/v1/stations/{station}/tides}: scheme, host and port must
 *       be the same; a variable (RFC 6570) stands for one path segment or a part of one.
 *   <li>{@code GET https://tides.example/{+rest}}: a variable with a plus sign stands for anything,
 *       slashes included, and also for nothing.
 *   <li>{@code POST /v1/bookings}: a path alone is meant for any host, scheme and port.
 *   <li>{@code GET https://tides.example/v1/tides?day={day}&unit=m}: these parameters must be
 *       there, in any order, the literal ones with this value. A pattern without a query fits
 *       whatever the query is.
 * </ul>
 *
 * Escapes that mean the same are the same ({@code %7e} and {@code ~}); everything else in a path is
 * compared to the letter, a slash at the end included. The method is case-sensitive.
 *
 * <p>Immutable and safe to share between threads.
 */
public final class RequestPattern {

  private static final Comparator<RequestPattern> MOST_SPECIFIC_FIRST =
      Comparator.comparing((RequestPattern pattern) -> pattern.line.specificity()).reversed();

  private final RequestLine line;

  private RequestPattern(RequestLine line) {
    this.line = line;
  }

  /**
   * The pattern that a request line describes.
   *
   * @throws IllegalArgumentException if the line is malformed; the message marks the place and says
   *     how to mend it
   */
  public static RequestPattern of(String requestLine) {
    return new RequestPattern(RequestLineParser.parse(requestLine));
  }

  /**
   * Sorts the more specific pattern first: one that names an origin before one for any host; then,
   * segment by segment from the left, a literal before a segment with a variable in it before a
   * variable before {@code {+rest}}; then the one that asks for more query parameters.
   */
  public static Comparator<RequestPattern> mostSpecificFirst() {
    return MOST_SPECIFIC_FIRST;
  }

  /** The path and query variables, decoded, if the request fits; empty if it does not. */
  public Optional<Map<String, String>> match(Request request) {
    return line.match(request);
  }

  /** How each condition fares with the request, whether it fits or not. */
  public Verdict examine(Request request) {
    return line.examine(request);
  }

  /** Whether the pattern names this very host and port, so that calls to it are expected. */
  public boolean names(String host, int port) {
    return line.origin().filter(origin -> origin.isAt(host, port)).isPresent();
  }

  @Override
  public boolean equals(Object other) {
    return other instanceof RequestPattern pattern && toString().equals(pattern.toString());
  }

  @Override
  public int hashCode() {
    return toString().hashCode();
  }

  /** The request line as it was written. */
  @Override
  public String toString() {
    return line.text();
  }
}
