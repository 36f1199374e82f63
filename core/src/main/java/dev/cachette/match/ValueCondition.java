package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.Optional;
import java.util.function.UnaryOperator;

/**
 * What a value of a request must be: of a path variable, a parameter, a header, a cookie, a form
 * field, a place in a JSON or XML body. Made by {@link Values}.
 *
 * <p>Where a place can have several values, as a repeated parameter has, it is enough that one of
 * them fulfils the condition; {@link Values#each} asks it of all.
 *
 * <p>Immutable and safe to share between threads.
 */
public abstract class ValueCondition {

  ValueCondition() {}

  /**
   * This condition and another one.
   *
   * @throws IllegalArgumentException if the other is null
   */
  public final ValueCondition and(ValueCondition other) {
    return new CombinedCondition(this, Arguments.given("and(condition)", other), true);
  }

  /**
   * This condition or another one.
   *
   * @throws IllegalArgumentException if the other is null
   */
  public final ValueCondition or(ValueCondition other) {
    return new CombinedCondition(this, Arguments.given("or(condition)", other), false);
  }

  /**
   * How a stub file writes it; empty where a function of one's own is in it.
   *
   * @see dev.cachette.stubfile
   */
  public abstract Optional<JsonNode> written();

  abstract boolean holds(Found found);

  /** What is asked for, in a few words, what is secret in it masked. */
  abstract String describe(UnaryOperator<String> mask);

  /** The likely cause, where one can be named; asked only where the condition does not hold. */
  Optional<String> cause(Found found) {
    return Optional.empty();
  }

  /** A remark on the kind of a value that stands behind it: {@code text, not a number}. */
  Optional<String> remark(JsonNode item, boolean typed) {
    return Optional.empty();
  }

  final Check check(String condition, Found found) {
    String expected = describe(found.mask());
    if (holds(found)) {
      return Check.held(condition, expected);
    }
    String remark =
        found.items().size() == 1
            ? remark(found.items().get(0), found.typed()).map(text -> "  (" + text + ")").orElse("")
            : "";
    return Check.missed(
        condition,
        found.isEmpty() ? 0 : 0.5,
        Difference.of(expected, found.shown() + remark)
            .because(found.isEmpty() ? Optional.empty() : cause(found)));
  }

  /** The condition in words. */
  @Override
  public final String toString() {
    return describe(UnaryOperator.identity());
  }
}
