package dev.cachette.answer;

import java.time.Duration;
import java.util.function.LongBinaryOperator;

/**
 * How long something takes: always the same, or drawn at random by the seed of the settings.
 *
 * @param least the shortest
 * @param most the longest; as long as the shortest where nothing is drawn
 */
public record Span(Duration least, Duration most) {

  /** No time at all. */
  public static final Span NONE = new Span(Duration.ZERO, Duration.ZERO);

  /**
   * Checks the two.
   *
   * @throws IllegalArgumentException if one is null or negative, or if they are the wrong way round
   */
  public Span {
    if (least == null || most == null || least.isNegative() || most.compareTo(least) < 0) {
      throw new IllegalArgumentException(
          String.format(
              "A time is a duration, or two, the shorter first and none negative; not %s to %s.",
              least, most));
    }
  }

  static Span of(Duration fixed) {
    return new Span(fixed, fixed);
  }

  /**
   * One of the durations.
   *
   * @param between draws a number from the one to the other, both included
   */
  public Duration draw(LongBinaryOperator between) {
    return least.equals(most)
        ? least
        : Duration.ofNanos(between.applyAsLong(least.toNanos(), most.toNanos()));
  }
}
