// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.internal.match.HostPattern;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.model.Place;
import dev.cachette.match.MatchInternals;
import dev.cachette.match.Received;
import dev.cachette.match.RequestPattern;
import dev.cachette.result.StubReference;
import java.util.Optional;
import java.util.OptionalInt;
import org.jspecify.annotations.Nullable;

/**
 * Traffic that is not intercepted: a host, HTTP or not, or requests that match a request line.
 *
 * @param host the host, for all its traffic
 * @param line the request line otherwise
 * @param reference its name and place in the log
 */
public record LetThrough(
    Optional<HostPattern> host, Optional<RequestPattern> line, StubReference reference) {

  /**
   * Parses {@code tides.example}, {@code *.example:8443}, or a request line.
   *
   * @throws IllegalArgumentException if it is none of these
   */
  public static LetThrough of(@Nullable String text, Place place) {
    if (text == null) {
      throw malformed(null, null);
    }
    StubReference reference = new StubReference("let through " + text, place.toString());
    if (text.strip().indexOf(' ') > 0) {
      return new LetThrough(Optional.empty(), Optional.of(RequestPattern.of(text)), reference);
    }
    try {
      return new LetThrough(Optional.of(HostPattern.of(text)), Optional.empty(), reference);
    } catch (IllegalArgumentException noHost) {
      throw malformed(text, noHost);
    }
  }

  /** Returns true if a connection matches; its port may be unknown. */
  boolean isFor(String name, OptionalInt port) {
    return host.filter(it -> it.isFor(name, port)).isPresent();
  }

  boolean isFor(Received received) {
    return line.map(it -> MatchInternals.match(it, received).isPresent())
        .orElseGet(
            () ->
                isFor(
                    received.request().uri().host(),
                    OptionalInt.of(received.request().uri().port())));
  }

  private static IllegalArgumentException malformed(
      @Nullable String text, @Nullable IllegalArgumentException cause) {
    return Refusals.argument(
        String.format(
            "letThrough(...) needs a host such as \"tides.example\" or \"*.example\", a host and"
                + " port such as \"db.example:5432\", or a request line such as \"GET"
                + " https://tides.example/v1/health\"; not \"%s\".",
            text),
        cause);
  }
}
