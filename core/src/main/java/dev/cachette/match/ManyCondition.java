package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.json.Written;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;

/** A condition on all values of a place together, their number included. */
final class ManyCondition extends ValueCondition {

  private final Function<UnaryOperator<String>, String> words;
  private final Optional<JsonNode> written;
  private final Predicate<Found> test;

  ManyCondition(
      Function<UnaryOperator<String>, String> words,
      Optional<JsonNode> written,
      Predicate<Found> test) {
    this.words = words;
    this.written = written;
    this.test = test;
  }

  /** Each value by itself fulfils the condition, and there is at least one. */
  static ManyCondition each(ValueCondition condition) {
    return new ManyCondition(
        mask -> "each " + condition.describe(mask),
        Written.member("each", condition.written()),
        found ->
            !found.isEmpty()
                && found.items().stream()
                    .allMatch(
                        item ->
                            condition.holds(
                                new Found(List.of(item), found.typed(), found.mask()))));
  }

  /** The condition does not hold. */
  static ManyCondition not(ValueCondition condition) {
    return new ManyCondition(
        mask -> "not " + condition.describe(mask),
        Written.member("not", condition.written()),
        found -> !condition.holds(found));
  }

  @Override
  public Optional<JsonNode> written() {
    return written;
  }

  @Override
  boolean holds(Found found) {
    return test.test(found);
  }

  @Override
  String describe(UnaryOperator<String> mask) {
    return words.apply(mask);
  }
}
