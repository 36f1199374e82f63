package dev.cachette.internal.stub;

import dev.cachette.match.Check;
import dev.cachette.match.Condition;
import dev.cachette.match.Received;
import java.util.Optional;
import java.util.function.Consumer;
import org.opentest4j.AssertionFailedError;

/**
 * What must hold for every request that a stub answers.
 *
 * @param condition what must hold, unless it is a function of the user's own
 * @param verify throws where it does not hold
 */
public record StubCheck(Optional<Condition> condition, Consumer<Received> verify) {

  /** A check by a function of one's own. */
  public StubCheck(Consumer<Received> verify) {
    this(Optional.empty(), verify);
  }

  /** A check by a condition. */
  public static StubCheck of(Condition condition) {
    return new StubCheck(
        Optional.of(condition),
        received -> {
          Check check = condition.check(received);
          if (!check.holds()) {
            throw new AssertionFailedError(
                "the check does not hold:\n\n" + check.lines(check.condition().length()));
          }
        });
  }
}
