// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.fields;

import dev.cachette.internal.misuse.Refusals;
import java.math.BigDecimal;
import java.time.DateTimeException;
import java.time.Duration;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Reads and writes durations: {@code 200ms}, {@code 1.5s}, {@code 10m}, or ISO 8601. */
public final class Durations {

  private static final Pattern SHORT = Pattern.compile("(\\d{1,9}(?:\\.\\d{1,9})?) ?(ms|s|m|h|d)");
  private static final Map<String, Duration> UNITS =
      Map.of(
          "ms", Duration.ofMillis(1),
          "s", Duration.ofSeconds(1),
          "m", Duration.ofMinutes(1),
          "h", Duration.ofHours(1),
          "d", Duration.ofDays(1));

  private Durations() {}

  /**
   * Parses a duration that is not negative.
   *
   * @throws IllegalArgumentException if it is not a duration
   */
  public static Duration parse(String text) {
    Matcher matcher = SHORT.matcher(text);
    if (matcher.matches()) {
      BigDecimal nanos = BigDecimal.valueOf(UNITS.get(matcher.group(2)).toNanos());
      return Duration.ofNanos(new BigDecimal(matcher.group(1)).multiply(nanos).longValue());
    }
    try {
      Duration duration = Duration.parse(text);
      if (!duration.isNegative()) {
        return duration;
      }
    } catch (DateTimeException malformed) {
      // Reported below, with the allowed forms.
    }
    throw Refusals.argument(
        "\"" + text + "\" is not a duration. Fix: write 200ms, 1.5s, 10m, 2h, 30d or PT1M30S.");
  }

  /** Returns the shortest form. */
  public static String write(Duration duration) {
    if (duration.toNanosPart() % 1_000_000 != 0 || duration.toDays() > 0) {
      return duration.toString();
    }
    long millis = duration.toMillis();
    if (millis % 1_000 != 0) {
      return millis + "ms";
    }
    return millis % 60_000 == 0 && millis > 0 ? millis / 60_000 + "m" : millis / 1_000 + "s";
  }
}
