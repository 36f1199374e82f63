// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

/** The clock of a session, which each scope leaves as it found it. */
final class ScopeClock {

  private final TestClock clock;
  private final boolean ours;
  private volatile Runnable reset;

  /** Creates it; a clock that the user sets is never reset. */
  ScopeClock(Settings settings) {
    clock = TestClock.over(settings.clock());
    ours = !settings.hasClock();
    reset = clock.saved();
  }

  TestClock clock() {
    return clock;
  }

  /** Enters a scope, and returns an action that restores the clock at its end. */
  Runnable enter() {
    if (!ours) {
      return () -> {};
    }
    Runnable outer = reset;
    Runnable saved = clock.saved();
    reset = saved;
    return () -> {
      saved.run();
      reset = outer;
    };
  }

  /** Sets the clock as it was at the beginning of the scope. */
  void reset() {
    if (ours) {
      reset.run();
    }
  }
}
