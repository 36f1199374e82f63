// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.model;

import dev.cachette.answer.Answer;
import dev.cachette.answer.Answers;
import dev.cachette.result.StubReference;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;

/**
 * A service with a limit of calls per time window, which answers 429 to others (RFC 6585 section
 * 4). A window begins with the first call outside of one.
 *
 * @param calls the limit
 * @param window the time
 */
public record RateLimit(int calls, Duration window) implements Behavior {

  @Override
  public BehaviorState begin(StubReference stub, long seed) {
    return new State(calls, window);
  }

  private static final class State implements BehaviorState {

    private final int calls;
    private final Duration window;
    private Instant end = Instant.MIN;
    private int left;

    State(int calls, Duration window) {
      this.calls = calls;
      this.window = window;
    }

    @Override
    public Optional<Answer> instead(Instant now) {
      if (!now.isBefore(end)) {
        end = now.plus(window);
        left = calls;
      }
      if (left > 0) {
        left--;
        return Optional.empty();
      }
      long seconds = Duration.between(now, end).plusNanos(999_999_999).toSeconds();
      return Optional.of(
          Answers.problem(429, "Too Many Requests").header("retry-after", Long.toString(seconds)));
    }

    @Override
    public void startAgain(long seed) {
      end = Instant.MIN;
    }
  }
}
