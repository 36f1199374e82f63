// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.result.Difference;
import java.math.BigDecimal;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;

/** A condition on a value as a number: a JSON number, or elsewhere text that is a number. */
final class NumberCondition extends ValueCondition {

  private final String words;
  private final JsonNode written;
  private final Predicate<BigDecimal> range;

  NumberCondition(String words, JsonNode written, Predicate<BigDecimal> range) {
    this.words = words;
    this.written = written;
    this.range = range;
  }

  @Override
  Optional<JsonNode> written() {
    return Optional.of(written);
  }

  @Override
  boolean isQuick() {
    return true;
  }

  @Override
  boolean holds(Found found) {
    return found.items().stream()
        .anyMatch(item -> number(item, found.typed()).filter(range).isPresent());
  }

  @Override
  String describe(UnaryOperator<String> mask) {
    return words;
  }

  @Override
  Optional<Remark> remark(JsonNode item, boolean typed) {
    return number(item, typed).isPresent()
        ? Optional.empty()
        : typed
            ? Remark.of(
                item,
                "a number",
                item.isTextual() ? Difference.Kind.STRING_FOR_NUMBER : Difference.Kind.TYPE)
            : Optional.of(new Remark("not a number", Difference.Kind.TYPE));
  }

  static Optional<BigDecimal> number(JsonNode item, boolean typed) {
    if (item.isNumber()) {
      return Optional.of(item.decimalValue());
    }
    if (typed || !item.isTextual()) {
      return Optional.empty();
    }
    try {
      return Optional.of(new BigDecimal(item.textValue().strip()));
    } catch (NumberFormatException noNumber) {
      return Optional.empty();
    }
  }
}
