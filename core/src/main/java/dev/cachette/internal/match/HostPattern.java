package dev.cachette.internal.match;

import java.util.Optional;
import java.util.OptionalInt;

/**
 * A host as users write it where there is no request line: {@code tides.example}, {@code
 * *.example}, {@code db.example:5432}.
 *
 * @param text as it was written
 * @param origin what it means, at a port that may not matter
 * @param atAnyPort whether its port does not matter
 */
public record HostPattern(String text, Origin origin, boolean atAnyPort) {

  /**
   * Reads it.
   *
   * @throws IllegalArgumentException if it is none; the message says what is wrong with it
   */
  public static HostPattern of(String text) {
    if (text.isBlank() || text.indexOf('/') >= 0 || text.indexOf(' ') >= 0) {
      throw new IllegalArgumentException("\"" + text + "\" is no host.");
    }
    boolean atAnyPort = !text.matches(".*:[0-9]+") || text.endsWith("]");
    Origin origin =
        RequestLineParser.parse("* http://" + text + "/{+anything}").origin().orElseThrow();
    return new HostPattern(text, origin, atAnyPort);
  }

  /** Whether a connection there is meant; the port may not be known yet. */
  public boolean isFor(String host, OptionalInt port) {
    return origin.mayBeAt(host, atAnyPort ? OptionalInt.empty() : port);
  }

  /** Whether it names this very host. */
  public boolean names(String host, int port) {
    Optional<String> literal = origin.literalHost();
    return literal.filter(host::equals).isPresent() && isFor(host, OptionalInt.of(port));
  }
}
