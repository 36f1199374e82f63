// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.sweep;

import dev.cachette.TestClock;
import dev.cachette.sweep.result.SweepFault;
import java.time.Duration;

/**
 * Moves the clock of the session in one run, so that nobody waits for a timeout or a slow response
 * in real time. A slow response needs its delay once; a call without an end gets more time again
 * and again, since it is not known how much it waits for.
 */
final class RunClock {

  /** How often to look whether the fault was given. */
  private static final long POLL_MILLIS = 5;

  /** How long a client may take to notice that its time is over. */
  private static final long PATIENCE_NANOS = 40_000_000;

  /** Longer than timeouts are. */
  private static final Duration STEP = Duration.ofMinutes(10);

  private final TestClock clock;
  private final SweepFault fault;
  private final Duration step;
  private Duration moved = Duration.ZERO;
  private int seen;
  private long movedAt;

  /**
   * Creates it.
   *
   * @param slow the delay of slow responses
   */
  RunClock(TestClock clock, SweepFault fault, Duration slow) {
    this.clock = clock;
    this.fault = fault;
    this.step = fault == SweepFault.SLOW ? slow : STEP;
  }

  /** Returns how long to wait for the end of the run before the next {@link #look}. */
  long pauseMillis() {
    return fault.isWaitedFor() ? POLL_MILLIS : Long.MAX_VALUE;
  }

  /** Moves the clock if the fault was given. */
  void look(int given) {
    long now = System.nanoTime();
    boolean another = given > seen;
    boolean again = given > 0 && fault != SweepFault.SLOW && now - movedAt >= PATIENCE_NANOS;
    if (fault.isWaitedFor() && (another || again)) {
      seen = given;
      movedAt = now;
      moved = moved.plus(step);
      clock.advance(step);
    }
  }

  /** Moves the clock back: a clock that the user has set is not reset at the end of a scope. */
  void restore() {
    if (!moved.isZero()) {
      clock.advance(moved.negated());
    }
  }
}
