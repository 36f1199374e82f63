package dev.cachette.internal.stub;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.answer.Answer;
import dev.cachette.internal.json.StubNodes;
import java.math.BigDecimal;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.function.Function;

/** A service that fails at random, with a probability and a seed. */
final class Flaky implements ServiceBehavior {

  private final double probability;
  private final List<Answer> failures;
  private final String stub;
  private long seed;
  private Random random;
  private int calls;
  private int failed;

  Flaky(double probability, List<Answer> failures, String stub, long seed) {
    this.probability = probability;
    this.failures = List.copyOf(failures);
    this.stub = stub;
    this.seed = seed;
    this.random = random(seed);
  }

  @Override
  public Optional<Answer> instead(Instant now) {
    calls++;
    if (random.nextDouble() >= probability) {
      return Optional.empty();
    }
    return Optional.of(failures.get(failed++ % failures.size()));
  }

  @Override
  public Optional<JsonNode> written(Function<Answer, Optional<JsonNode>> answers) {
    return StubNodes.all(failures.stream().map(answers).toList())
        .map(
            all ->
                StubNodes.member(
                    "flaky",
                    StubNodes.member(
                            "probability", StubNodes.number(BigDecimal.valueOf(probability)))
                        .set("failures", all)));
  }

  @Override
  public void startAgain(long anew) {
    seed = anew;
    random = random(anew);
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
