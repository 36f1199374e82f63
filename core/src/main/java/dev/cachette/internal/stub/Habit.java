package dev.cachette.internal.stub;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.answer.Answer;
import java.time.Instant;
import java.util.Optional;
import java.util.function.Function;

/** What a service does now and then in place of its answer. Guarded by the lock of Scopes. */
interface Habit {

  /** What the next call gets instead; empty if it gets its answer. */
  Optional<Answer> instead(Instant now);

  /**
   * How a stub file says it, as a member of the stub; empty if it cannot.
   *
   * @param answers writes an answer, if it can be written
   */
  Optional<JsonNode> written(Function<Answer, Optional<JsonNode>> answers);

  /** Begins anew. */
  void startAgain(long seed);

  /** What is worth knowing when a test failed; empty if nothing is. */
  Optional<String> note();
}
