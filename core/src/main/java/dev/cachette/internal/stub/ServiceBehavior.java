package dev.cachette.internal.stub;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.answer.Answer;
import java.time.Instant;
import java.util.Optional;
import java.util.function.Function;

/**
 * Replaces answers of a stub, to simulate the behavior of a service. Guarded by the lock of Scopes.
 */
interface ServiceBehavior {

  /** Returns the replacement for the next answer; empty if there is none. */
  Optional<Answer> instead(Instant now);

  /**
   * Returns its form in stub files, as a member of the stub; empty if it cannot be written.
   *
   * @param answers writes an answer, if possible
   */
  Optional<JsonNode> written(Function<Answer, Optional<JsonNode>> answers);

  /** Resets it. */
  void startAgain(long seed);

  /** Returns a note for a failed test; empty if there is none. */
  Optional<String> note();
}
