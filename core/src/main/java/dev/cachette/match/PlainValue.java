// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.internal.misuse.Refusals;
import java.math.BigDecimal;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Converts plain values to conditions, so that {@code .json("$.qty", 2)} needs no {@code is}. */
final class PlainValue {

  private PlainValue() {}

  /** Returns the condition for a value in JSON. */
  static ValueCondition condition(String what, @Nullable Object value) {
    if (value == null) {
      return Values.isNull();
    }
    ValueCondition simple = simple(what, value);
    return simple == null ? written(tree(what, value)) : simple;
  }

  /**
   * Returns the condition for a value outside of JSON, such as a header.
   *
   * @throws IllegalArgumentException if it cannot be one value of text
   */
  static ValueCondition text(String what, @Nullable Object value) {
    if (value == null) {
      throw Refusals.argument(
          what + " was given null. Fix: missing() matches if there is no value.");
    }
    ValueCondition simple = simple(what, value);
    if (simple != null) {
      return simple;
    }
    JsonNode node = tree(what, value);
    if (!node.isValueNode()) {
      throw Refusals.argument(
          String.format(
                  "%s needs a single value or a condition, not an object of %s.%nFix: list(...) and"
                      + " inAnyOrder(...) match several values, oneOf(...) one of several.",
                  what, value.getClass())
              .replace("\r\n", "\n"));
    }
    return written(node);
  }

  /** Returns the condition for a value that needs no mapper; null for any other. */
  private static @Nullable ValueCondition simple(String what, Object value) {
    if (value instanceof ValueCondition condition) {
      return condition;
    }
    if (value instanceof CharSequence || value instanceof Character) {
      return Values.is(value.toString());
    }
    if (value instanceof Number number) {
      return number(Values.decimal(what, number));
    }
    if (value instanceof Boolean flag) {
      return new BooleanCondition(flag);
    }
    Instant instant = instant(value);
    return instant == null ? null : Values.sameInstant(instant);
  }

  private static JsonNode tree(String what, Object value) {
    return Json.tree(Json.write(what, value, Json.mapper()));
  }

  static List<ValueCondition> conditions(String what, @Nullable Object @Nullable [] values) {
    List<ValueCondition> conditions = new ArrayList<>();
    for (Object value : Arguments.given(what, values)) {
      conditions.add(condition(what, value));
    }
    return conditions;
  }

  private static @Nullable Instant instant(Object value) {
    if (value instanceof OffsetDateTime time) {
      return time.toInstant();
    }
    if (value instanceof ZonedDateTime time) {
      return time.toInstant();
    }
    return value instanceof Instant instant ? instant : null;
  }

  private static ValueCondition written(JsonNode node) {
    if (node.isTextual()) {
      return Values.is(node.textValue());
    }
    if (node.isNumber()) {
      return number(node.decimalValue());
    }
    return node.isBoolean() ? new BooleanCondition(node.booleanValue()) : Values.isJson(node);
  }

  private static ValueCondition number(BigDecimal wanted) {
    return new NumberCondition(
        "the number " + wanted.toPlainString(),
        StubNodes.number(wanted),
        actual -> actual.compareTo(wanted) == 0);
  }
}
