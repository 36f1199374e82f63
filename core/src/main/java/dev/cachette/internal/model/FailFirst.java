// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.model;

import dev.cachette.answer.Answer;
import dev.cachette.answer.Answers;
import dev.cachette.result.StubReference;
import java.time.Instant;
import java.util.Optional;

/**
 * A service that is still starting: 503 for the first calls.
 *
 * @param calls how many
 */
public record FailFirst(int calls) implements Behavior {

  @Override
  public BehaviorState begin(StubReference stub, long seed) {
    return new State(calls);
  }

  private static final class State implements BehaviorState {

    private final int calls;
    private int left;

    State(int calls) {
      this.calls = calls;
      this.left = calls;
    }

    @Override
    public Optional<Answer> instead(Instant now) {
      return left-- > 0
          ? Optional.of(Answers.problem(503, "Service Unavailable"))
          : Optional.empty();
    }

    @Override
    public void startAgain(long seed) {
      left = calls;
    }
  }
}
