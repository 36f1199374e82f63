// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.calls.CallTimes;
import java.time.Duration;
import java.util.Arrays;
import java.util.Optional;

/** When a call reached the stages of its answer. Thread-safe. */
final class Stages {

  /** A stage; each is reached once. */
  enum Stage {
    MATCHED,
    HELD,
    RELEASED,
    FIRST_BYTE,
    ANSWERED
  }

  private static final int NOT_REACHED = -1;

  private final long arrived;

  /** Nanoseconds since the arrival. */
  private final long[] after = new long[Stage.values().length];

  Stages(long arrived) {
    this.arrived = arrived;
    Arrays.fill(after, NOT_REACHED);
  }

  synchronized void reach(Stage stage, long now) {
    if (after[stage.ordinal()] == NOT_REACHED) {
      after[stage.ordinal()] = Math.max(0, now - arrived);
    }
  }

  synchronized Optional<Duration> after(Stage stage) {
    long nanos = after[stage.ordinal()];
    return nanos == NOT_REACHED ? Optional.empty() : Optional.of(Duration.ofNanos(nanos));
  }

  CallTimes times() {
    return new CallTimes(
        after(Stage.MATCHED),
        after(Stage.HELD),
        after(Stage.RELEASED),
        after(Stage.FIRST_BYTE),
        after(Stage.ANSWERED));
  }
}
