// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cassette;

import java.time.Instant;
import java.util.List;
import java.util.Optional;

/**
 * Recorded exchanges in order, with placeholders for secrets.
 *
 * @param name its name
 * @param recordedAt when it was last recorded; empty if it has no exchanges
 * @param exchanges the exchanges; those of a file are read one by one, on access, which throws
 *     {@link CassetteException} if one is malformed
 */
public record CassetteContent(String name, Optional<Instant> recordedAt, List<Exchange> exchanges) {

  /**
   * Returns the drift from this cassette to another one, compared by {@link Matching#byDefault()}.
   */
  public Drift compareWith(CassetteContent other) {
    return compareWith(other, Matching.byDefault());
  }

  /**
   * Returns the drift from this cassette to another one.
   *
   * @param matching which exchanges belong together, and what is ignored
   */
  public Drift compareWith(CassetteContent other, Matching matching) {
    return new Drift(name, Comparison.of(this, other, matching));
  }
}
