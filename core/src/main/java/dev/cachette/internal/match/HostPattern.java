// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.match;

import dev.cachette.internal.misuse.Refusals;
import java.util.Optional;
import java.util.OptionalInt;

/**
 * A host outside of a request line: {@code tides.example}, {@code *.example}, {@code
 * db.example:5432}.
 *
 * @param text as written
 * @param origin its meaning, with a port that may be irrelevant
 * @param atAnyPort whether the port is irrelevant
 */
public record HostPattern(String text, Origin origin, boolean atAnyPort) {

  /**
   * Parses a host.
   *
   * @throws IllegalArgumentException if it is not a host; the message says why
   */
  public static HostPattern of(String text) {
    if (text.isBlank() || text.indexOf('/') >= 0 || text.indexOf(' ') >= 0) {
      throw Refusals.argument("\"" + text + "\" is not a host.");
    }
    boolean atAnyPort = !text.matches(".*:[0-9]+") || text.endsWith("]");
    Origin origin =
        RequestLineParser.parse("* http://" + text + "/{+anything}").origin().orElseThrow();
    return new HostPattern(text, origin, atAnyPort);
  }

  /** Returns true if a connection matches; its port may be unknown. */
  public boolean isFor(String host, OptionalInt port) {
    return origin.mayBeAt(host, atAnyPort ? OptionalInt.empty() : port);
  }

  /** Returns true if it is exactly this host. */
  public boolean names(String host, int port) {
    Optional<String> literal = origin.literalHost();
    return literal.filter(host::equals).isPresent() && isFor(host, OptionalInt.of(port));
  }
}
