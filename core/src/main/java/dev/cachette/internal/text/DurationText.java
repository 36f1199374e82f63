// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.text;

import java.time.Duration;

/** Durations for people: {@code 1 min 30 s}. */
public final class DurationText {

  private DurationText() {}

  /** Returns the two largest units, without those that are zero. */
  public static String of(Duration duration) {
    long millis = duration.abs().toMillis();
    long[] sizes = {86_400_000, 3_600_000, 60_000, 1_000, 1};
    String[] units = {"d", "h", "min", "s", "ms"};
    StringBuilder text = new StringBuilder();
    int shown = 0;
    for (int at = 0; at < sizes.length && shown < 2; at++) {
      long number = millis / sizes[at];
      millis %= sizes[at];
      if (number > 0) {
        text.append(text.isEmpty() ? "" : " ").append(number).append(' ').append(units[at]);
      }
      shown += text.isEmpty() ? 0 : 1;
    }
    return text.isEmpty() ? "0 s" : text.toString();
  }
}
