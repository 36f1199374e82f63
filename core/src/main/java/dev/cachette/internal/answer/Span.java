// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.answer;

import dev.cachette.internal.misuse.Refusals;
import java.time.Duration;
import java.util.function.LongBinaryOperator;

/**
 * A duration: fixed, or drawn at random with the seed of the settings.
 *
 * @param least the shortest
 * @param most the longest; equal to the shortest if it is fixed
 */
public record Span(Duration least, Duration most) {

  /** A duration of zero. */
  public static final Span NONE = new Span(Duration.ZERO, Duration.ZERO);

  /**
   * Validates the range.
   *
   * @throws IllegalArgumentException if one is null or negative, or if the first is longer
   */
  public Span {
    if (least == null || most == null || least.isNegative() || most.compareTo(least) < 0) {
      throw Refusals.argument(
          String.format(
              "A time is one duration, or the shortest and the longest, neither negative; not %s to"
                  + " %s.",
              least, most));
    }
  }

  /** Returns a fixed duration. */
  public static Span of(Duration fixed) {
    return new Span(fixed, fixed);
  }

  /**
   * Returns a duration.
   *
   * @param between draws a number between two, both included
   */
  public Duration draw(LongBinaryOperator between) {
    return least.equals(most)
        ? least
        : Duration.ofNanos(between.applyAsLong(least.toNanos(), most.toNanos()));
  }
}
