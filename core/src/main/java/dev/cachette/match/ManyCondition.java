// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.result.Cause;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;

/** A condition on all values of a place together, including their number. */
final class ManyCondition extends ValueCondition {

  private final Function<UnaryOperator<String>, String> words;
  private final Optional<JsonNode> written;
  private final Predicate<Found> test;
  private final Function<Found, Optional<Cause>> cause;

  ManyCondition(
      Function<UnaryOperator<String>, String> words,
      Optional<JsonNode> written,
      Predicate<Found> test) {
    this(words, written, test, found -> Optional.empty());
  }

  ManyCondition(
      Function<UnaryOperator<String>, String> words,
      Optional<JsonNode> written,
      Predicate<Found> test,
      Function<Found, Optional<Cause>> cause) {
    this.words = words;
    this.written = written;
    this.test = test;
    this.cause = cause;
  }

  /** Returns a condition that holds if there is at least one value and each meets the given one. */
  static ManyCondition each(ValueCondition condition) {
    return new ManyCondition(
        mask -> "each " + condition.describe(mask),
        StubNodes.member("each", condition.written()),
        found ->
            !found.isEmpty()
                && found.items().stream()
                    .allMatch(
                        item ->
                            condition.holds(
                                new Found(List.of(item), found.typed(), found.mask()))));
  }

  /** Returns a condition that holds if the given one does not. */
  static ManyCondition not(ValueCondition condition) {
    return new ManyCondition(
        mask -> "not " + condition.describe(mask),
        StubNodes.member("not", condition.written()),
        found -> !condition.holds(found));
  }

  @Override
  Optional<JsonNode> written() {
    return written;
  }

  @Override
  boolean holds(Found found) {
    return test.test(found);
  }

  @Override
  Optional<Cause> cause(Found found) {
    return cause.apply(found);
  }

  @Override
  String describe(UnaryOperator<String> mask) {
    return words.apply(mask);
  }
}
