// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.model;

import dev.cachette.answer.Answer;
import dev.cachette.result.StubReference;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Random;

/**
 * A service that fails at random.
 *
 * @param probability of a failure, from 0 to 1
 * @param failures its answers then, in turn
 */
public record Flaky(double probability, List<Answer> failures) implements Behavior {

  /** Copies the failures. */
  public Flaky {
    failures = List.copyOf(failures);
  }

  @Override
  public BehaviorState begin(StubReference stub, long seed) {
    return new State(this, stub.toString(), seed);
  }

  private static final class State implements BehaviorState {

    private final Flaky flaky;
    private final String stub;
    private long seed;
    private Random random;
    private int calls;
    private int failed;

    State(Flaky flaky, String stub, long seed) {
      this.flaky = flaky;
      this.stub = stub;
      this.seed = seed;
      this.random = random(seed);
    }

    @Override
    public Optional<Answer> instead(Instant now) {
      calls++;
      if (random.nextDouble() >= flaky.probability) {
        return Optional.empty();
      }
      return Optional.of(flaky.failures.get(failed++ % flaky.failures.size()));
    }

    @Override
    public void startAgain(long first) {
      seed = first;
      random = random(first);
      calls = 0;
      failed = 0;
    }

    /** A different sequence for each stub, so that they do not fail at the same time. */
    private Random random(long first) {
      return new Random(31 * first + stub.hashCode());
    }

    @Override
    public Optional<String> note() {
      return calls == 0
          ? Optional.empty()
          : Optional.of(
              String.format(
                  "%d of %d calls of the flaky stub %s failed, with seed %d. To repeat:"
                      + " Settings.defaults().seed(%d).",
                  failed, calls, stub, seed, seed));
    }
  }
}
