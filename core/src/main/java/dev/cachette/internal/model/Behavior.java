package dev.cachette.internal.model;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.answer.Answer;
import dev.cachette.result.StubReference;
import java.util.Optional;
import java.util.function.Function;

/** How a stub behaves besides its answers, as some services do. A value. */
public sealed interface Behavior permits FailFirst, Flaky, RateLimit {

  /**
   * Begins it.
   *
   * @param stub the stub that behaves so
   * @param seed the seed of what is random
   */
  BehaviorState begin(StubReference stub, long seed);

  /**
   * Returns its form in stub files, as a member of the stub; empty if it cannot be written.
   *
   * @param answers writes an answer, if possible
   */
  Optional<JsonNode> written(Function<Answer, Optional<JsonNode>> answers);
}
