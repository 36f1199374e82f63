// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.model;

import dev.cachette.answer.Answer;
import java.time.Instant;
import java.util.Optional;

/** The state of a {@link Behavior} of a stub. Not thread-safe. */
public interface BehaviorState {

  /** Returns the replacement for the next answer; empty if there is none. */
  Optional<Answer> instead(Instant now);

  /** Resets it. */
  void startAgain(long seed);

  /** Returns a note for a failed test; empty if there is none. */
  default Optional<String> note() {
    return Optional.empty();
  }
}
