package dev.cachette.internal.stub;

import dev.cachette.answer.Answer;
import java.time.Instant;
import java.util.Optional;

/** What a service does now and then in place of its answer. Guarded by the lock of Scopes. */
interface Habit {

  /** What the next call gets instead; empty if it gets its answer. */
  Optional<Answer> instead(Instant now);

  /** Begins anew. */
  void startAgain(long seed);

  /** What is worth knowing when a test failed; empty if nothing is. */
  Optional<String> note();
}
