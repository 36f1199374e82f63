// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.fields.Fields;
import dev.cachette.internal.fields.Problems;
import dev.cachette.internal.yaml.Node;
import dev.cachette.match.ValueCondition;
import dev.cachette.match.Values;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.BinaryOperator;
import java.util.function.Function;

/**
 * Reads conditions on values: a plain value is that value; a mapping has one or more conditions,
 * all of which must hold.
 */
final class ValueReader {

  private final Problems problems;

  ValueReader(Problems problems) {
    this.problems = problems;
  }

  Optional<ValueCondition> read(Node node) {
    if (node.isSequence()) {
      problems.add(
          node,
          "a sequence is ambiguous here. Fix: { oneOf: [...] }, { list: [...] } for exactly these"
              + " values, or { json: [...] }.");
      return Optional.empty();
    }
    if (!node.isMapping()) {
      return problems.attempt(node, () -> plain(node));
    }
    Fields fields = Fields.of(node, "condition", ValueKeys.ALL, problems);
    boolean anyCase = fields.isSet(ValueKeys.IGNORING_CASE);
    List<ValueCondition> all = new ArrayList<>();
    for (Node.Member member : fields.members()) {
      ValueKeys.Reading key = ValueKeys.ALL.reading(member.name());
      if (key != null) {
        problems
            .attempt(member.value(), () -> key.of(this, member.value(), anyCase))
            .flatMap(Function.identity())
            .ifPresent(all::add);
      }
    }
    if (fields.members().isEmpty()) {
      problems.add(node, "an empty mapping has no condition. Fix: { present: true }.");
    }
    return all.stream().reduce(ValueCondition::and);
  }

  /** Returns the condition that a value is the one of a scalar. */
  static ValueCondition plain(Node node) {
    JsonNode scalar = node.json();
    if (scalar.isNumber()) {
      return Values.is(scalar.decimalValue());
    }
    if (scalar.isBoolean()) {
      return Values.is(scalar.booleanValue());
    }
    return scalar.isNull() ? Values.isNull() : Values.is(scalar.textValue());
  }

  /** Reads true or false. */
  static boolean flag(Node node) {
    if (!node.json().isBoolean()) {
      throw new IllegalArgumentException("expected true or false, found " + node.kind() + ".");
    }
    return node.json().booleanValue();
  }

  /** Reads conditions, and combines them. */
  Optional<ValueCondition> combined(Node node, BinaryOperator<ValueCondition> how) {
    return Fields.elements(node).stream().flatMap(each -> read(each).stream()).reduce(how);
  }

  /** Reads the two ends of a range. */
  static ValueCondition between(Node node) {
    List<Node> bounds = Fields.elements(node);
    if (bounds.size() != 2) {
      throw new IllegalArgumentException("between needs two numbers: [0.5, 4.5].");
    }
    return Values.between(number(bounds.get(0)), number(bounds.get(1)));
  }

  /** Reads a condition on a date, or on an instant if there is a time. */
  static ValueCondition time(
      Node node,
      Function<LocalDate, ValueCondition> ofDate,
      Function<Instant, ValueCondition> ofInstant) {
    String text = text(node);
    return text.indexOf('T') < 0
        ? ofDate.apply(parsed(text, LocalDate::parse))
        : ofInstant.apply(instant(text));
  }

  /** Reads a date-time with an offset. */
  static Instant instant(String text) {
    return parsed(text, it -> OffsetDateTime.parse(it).toInstant());
  }

  private static <T> T parsed(String text, Function<String, T> parser) {
    try {
      return parser.apply(text);
    } catch (DateTimeException malformed) {
      throw new IllegalArgumentException(
          "\"" + text + "\" is not a time. Fix: a date, 2031-04-02, or 2031-04-02T04:10:00Z.");
    }
  }

  /** Reads a number. */
  static Number number(Node node) {
    if (!node.json().isNumber()) {
      throw new IllegalArgumentException("expected a number, found " + node.kind() + ".");
    }
    return node.json().decimalValue();
  }

  /** Reads a scalar, as text. */
  static String text(Node node) {
    return scalar(node).text();
  }

  /** Reads one text or several. */
  static String[] texts(Node node) {
    return Fields.elements(node).stream().map(ValueReader::text).toArray(String[]::new);
  }

  /** Reads one condition or several. */
  Object[] conditions(Node node) {
    return Fields.elements(node).stream().flatMap(each -> read(each).stream()).toArray();
  }

  /** Returns a node that is a scalar. */
  static Node scalar(Node node) {
    if (node.isMapping() || node.isSequence()) {
      throw new IllegalArgumentException("expected a plain value, found " + node.kind() + ".");
    }
    return node;
  }
}
