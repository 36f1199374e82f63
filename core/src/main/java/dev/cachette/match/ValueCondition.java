// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.json.JsonComparison;
import dev.cachette.result.Cause;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.util.Optional;
import java.util.function.UnaryOperator;

/**
 * A condition on a value of a request: a path variable, a query parameter, a header, a cookie, a
 * form field, a place in a JSON or XML body. Created by {@link Values}.
 *
 * <p>If a place has several values, such as a repeated parameter, one matching value is enough;
 * {@link Values#each} requires all of them to match.
 *
 * <p>Immutable and safe to share between threads.
 */
public abstract class ValueCondition {

  ValueCondition() {}

  /**
   * Returns a condition that holds if this one and another one hold.
   *
   * @throws IllegalArgumentException if the other is null
   */
  public final ValueCondition and(ValueCondition other) {
    return new CombinedCondition(this, Arguments.given("and(condition)", other), true);
  }

  /**
   * Returns a condition that holds if this one or another one holds.
   *
   * @throws IllegalArgumentException if the other is null
   */
  public final ValueCondition or(ValueCondition other) {
    return new CombinedCondition(this, Arguments.given("or(condition)", other), false);
  }

  /** Returns the stub-file form; empty if user code is part of the condition. */
  abstract Optional<JsonNode> written();

  abstract boolean holds(Found found);

  /** Returns true if it certainly takes little time. */
  boolean isQuick() {
    return false;
  }

  /** Returns the requirement in a few words, with secrets masked. */
  abstract String describe(UnaryOperator<String> mask);

  /** Returns the cause, if one is known; only called if the condition does not hold. */
  Optional<Cause> cause(Found found) {
    return Optional.empty();
  }

  /** Returns how a value differs, and a remark on its type, shown after it. */
  Optional<Remark> remark(JsonNode item, boolean typed) {
    return Optional.empty();
  }

  /**
   * A remark on the type of a value.
   *
   * @param text what it is: {@code a string, not a number}
   * @param kind how it differs
   */
  record Remark(String text, Difference.Kind kind) {

    /** Returns the remark for a value that is not of the wanted type. */
    static Optional<Remark> of(JsonNode item, String wanted, Difference.Kind kind) {
      return Optional.of(new Remark(JsonComparison.type(item) + ", not " + wanted, kind));
    }
  }

  final Check check(String condition, Found found) {
    String expected = describe(found.mask());
    if (holds(found)) {
      return Check.held(condition, expected);
    }
    Optional<Remark> remark =
        found.items().size() == 1 ? remark(found.items().get(0), found.typed()) : Optional.empty();
    Difference difference =
        Difference.of(
            expected, found.shown() + remark.map(it -> "  (" + it.text() + ")").orElse(""));
    return Check.missed(
        condition,
        found.isEmpty() ? 0 : 0.5,
        remark
            .map(it -> difference.of(it.kind()))
            .orElse(difference)
            .with(found.isEmpty() ? Optional.empty() : cause(found)));
  }

  /** Returns the condition in words. */
  @Override
  public final String toString() {
    return describe(UnaryOperator.identity());
  }
}
