package dev.cachette.internal.stubfile;

import java.math.BigDecimal;
import java.time.DateTimeException;
import java.time.Duration;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Reads and writes durations: {@code 200ms}, {@code 1.5s}, {@code 10m}, or as ISO 8601 has them.
 */
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
   * A duration that is not negative.
   *
   * @throws IllegalArgumentException if the text is none
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
      // Said below, with what is allowed.
    }
    throw new IllegalArgumentException(
        "\"" + text + "\" is no duration. Mend: write it as 200ms, 1.5s, 10m, 2h, 30d or PT1M30S.");
  }

  /** As short as it can be said. */
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
