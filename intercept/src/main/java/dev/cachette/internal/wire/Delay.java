// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import java.time.Duration;

/**
 * The delay before a response: over when it has passed, in real time or by the clock of the
 * session. Moving the clock back does not make it longer.
 */
final class Delay {

  /** By this much the two times may differ though the clock was not moved. */
  private static final Duration INEXACT = Duration.ofMillis(10);

  private final Duration length;

  /** The age of the call when it began, in real time or by the clock, whichever was less. */
  private final Duration begin;

  private final boolean clockAhead;
  private final long beginNanos = System.nanoTime();

  private Delay(Duration length, Duration begin, boolean clockAhead) {
    this.length = length;
    this.begin = begin;
    this.clockAhead = clockAhead;
  }

  /**
   * Begins it.
   *
   * @param age the age of the call by the clock, which may have been moved since it arrived
   * @param realAge the same in real time
   */
  static Delay of(Duration length, Duration age, Duration realAge) {
    boolean ahead = age.minus(realAge).compareTo(INEXACT) > 0;
    return new Delay(length, ahead ? realAge : age, ahead);
  }

  /** Returns true if the clock was moved forward between the arrival of the call and its begin. */
  boolean isClockAhead() {
    return clockAhead;
  }

  /** Returns the age of a call, but not more than at the end of the delay. */
  Duration within(Duration age) {
    Duration end = begin.plus(length);
    return age.compareTo(end) < 0 ? age : end;
  }

  /** Returns what is left of it for a call of this age; zero if it is over. */
  Duration left(Duration age) {
    Duration passed = Duration.ofNanos(System.nanoTime() - beginNanos);
    Duration byClock = age.minus(begin);
    Duration left = length.minus(byClock.compareTo(passed) > 0 ? byClock : passed);
    return left.isNegative() ? Duration.ZERO : left;
  }
}
