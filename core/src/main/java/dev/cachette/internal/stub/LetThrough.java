package dev.cachette.internal.stub;

import dev.cachette.calls.StubReference;
import dev.cachette.match.Received;
import dev.cachette.match.RequestPattern;
import java.util.OptionalInt;
import org.jspecify.annotations.Nullable;

/**
 * What is not intercepted: a host, one port of it, or the requests that fit a request line.
 *
 * @param pattern what is meant
 * @param isWholeHost whether all that goes there is meant, HTTP or not
 * @param atAnyPort whether its port does not matter
 * @param reference what it is called in the log, and where it was said
 */
public record LetThrough(
    RequestPattern pattern, boolean isWholeHost, boolean atAnyPort, StubReference reference) {

  /**
   * Reads what a user writes: {@code tides.example}, {@code *.example:8443}, or a request line.
   *
   * @throws IllegalArgumentException if it is none of these
   */
  public static LetThrough of(@Nullable String text, Place place) {
    if (text == null || text.isBlank()) {
      throw malformed(text, null);
    }
    StubReference reference = new StubReference("let through " + text, place.toString());
    if (text.indexOf(' ') > 0) {
      return new LetThrough(RequestPattern.of(text), false, false, reference);
    }
    if (text.indexOf('/') >= 0) {
      throw malformed(text, null);
    }
    try {
      RequestPattern anything = RequestPattern.of("* http://" + text + "/{+anything}");
      boolean atAnyPort = !text.matches(".*:[0-9]+") || text.endsWith("]");
      return new LetThrough(anything, true, atAnyPort, reference);
    } catch (IllegalArgumentException noHost) {
      throw malformed(text, noHost);
    }
  }

  /** Whether a connection is meant; the port may not be known yet. */
  boolean isFor(String host, OptionalInt port) {
    return isWholeHost && pattern.mayReach(host, atAnyPort ? OptionalInt.empty() : port);
  }

  boolean isFor(Received received) {
    return isWholeHost
        ? isFor(received.request().uri().host(), OptionalInt.of(received.request().uri().port()))
        : pattern.match(received).isPresent();
  }

  private static IllegalArgumentException malformed(
      @Nullable String text, @Nullable IllegalArgumentException cause) {
    return new IllegalArgumentException(
        String.format(
            "letThrough(...) takes a host such as \"tides.example\" or \"*.example\", a host and "
                + "port such as \"db.example:5432\", or a request line such as "
                + "\"GET https://tides.example/v1/health\"; not \"%s\".",
            text),
        cause);
  }
}
