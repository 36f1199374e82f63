package dev.cachette.internal.stub;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.answer.Answer;
import dev.cachette.answer.Answers;
import dev.cachette.internal.json.StubNodes;
import java.math.BigDecimal;
import java.time.Instant;
import java.util.Optional;
import java.util.function.Function;

/** A service that is still starting: 503 for the first calls. */
final class FailFirst implements ServiceBehavior {

  private final int calls;
  private int left;

  FailFirst(int calls) {
    this.calls = calls;
    this.left = calls;
  }

  @Override
  public Optional<Answer> instead(Instant now) {
    return left-- > 0 ? Optional.of(Answers.problem(503, "Service Unavailable")) : Optional.empty();
  }

  @Override
  public Optional<JsonNode> written(Function<Answer, Optional<JsonNode>> answers) {
    return Optional.of(StubNodes.member("failFirst", StubNodes.number(BigDecimal.valueOf(calls))));
  }

  @Override
  public void startAgain(long seed) {
    left = calls;
  }

  @Override
  public Optional<String> note() {
    return Optional.empty();
  }
}
