package dev.cachette.internal.stub;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.answer.Answer;
import dev.cachette.answer.Answers;
import dev.cachette.internal.json.Written;
import java.math.BigDecimal;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import java.util.function.Function;

/**
 * A service that takes so many calls in a window of time, and answers 429 to the others (RFC 6585
 * section 4). A window begins with the first call that comes when there is none.
 */
final class Budget implements Habit {

  private final int calls;
  private final Duration window;
  private Instant end = Instant.MIN;
  private int left;

  Budget(int calls, Duration window) {
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
  public Optional<JsonNode> written(Function<Answer, Optional<JsonNode>> answers) {
    ObjectNode form = Written.member("calls", Written.number(BigDecimal.valueOf(calls)));
    form.put("window", window.toString());
    return Optional.of(Written.member("budget", form));
  }

  @Override
  public void startAgain(long seed) {
    end = Instant.MIN;
  }

  @Override
  public Optional<String> note() {
    return Optional.empty();
  }
}
