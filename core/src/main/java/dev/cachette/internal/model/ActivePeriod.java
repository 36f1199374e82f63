// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.model;

import java.time.Instant;

/**
 * When a stub is active.
 *
 * @param from the first instant; {@link Instant#MIN} for always
 * @param until the first instant after it; {@link Instant#MAX} for never
 */
public record ActivePeriod(Instant from, Instant until) {

  /** Without an end. */
  public static final ActivePeriod ALWAYS = new ActivePeriod(Instant.MIN, Instant.MAX);

  /** Returns true if an instant is within it. */
  public boolean contains(Instant instant) {
    return !instant.isBefore(from) && instant.isBefore(until);
  }
}
