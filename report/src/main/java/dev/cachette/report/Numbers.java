// SPDX-License-Identifier: Apache-2.0
package dev.cachette.report;

/** Numbers as they are written. */
final class Numbers {

  private static final double THOUSAND = 1_000;

  private Numbers() {}

  /** Returns milliseconds, to the microsecond. */
  static double rounded(double millis) {
    return Math.round(millis * THOUSAND) / THOUSAND;
  }
}
