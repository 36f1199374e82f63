// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import java.util.Locale;

/** Sizes for people. */
final class Sizes {

  private static final int STEP = 1024;

  private Sizes() {}

  static String of(long bytes) {
    if (bytes < STEP) {
      return bytes + " B";
    }
    double size = bytes;
    int unit = -1;
    while (size >= STEP && unit < 2) {
      size /= STEP;
      unit++;
    }
    return String.format(Locale.ROOT, size < 10 ? "%.1f %s" : "%.0f %s", size, units(unit));
  }

  private static String units(int unit) {
    return new String[] {"KiB", "MiB", "GiB"}[unit];
  }
}
