package dev.cachette.cassette;

import java.time.Instant;
import java.util.List;
import java.util.Optional;

/**
 * What was recorded: exchanges in their order, with markers in place of secrets.
 *
 * @param name what it is called
 * @param recordedAt when it was recorded, the last time; empty if there is nothing in it
 * @param exchanges the exchanges; those of a file are read one by one, when they are asked for, and
 *     then throw {@link CassetteException} where they are malformed
 */
public record Cassette(String name, Optional<Instant> recordedAt, List<Exchange> exchanges) {

  /** What has changed from this one to another, as {@link Matching#byDefault()} compares. */
  public Drift compareWith(Cassette other) {
    return compareWith(other, Matching.byDefault());
  }

  /**
   * What has changed from this one to another.
   *
   * @param matching which exchanges belong together, and what is ignored
   */
  public Drift compareWith(Cassette other, Matching matching) {
    return new Drift(name, Comparison.of(this, other, matching));
  }
}
