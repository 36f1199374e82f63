// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.yaml.Node;
import dev.cachette.match.TextCondition;
import dev.cachette.match.ValueCondition;
import dev.cachette.match.Values;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.BinaryOperator;
import java.util.function.Function;

/**
 * Reads conditions on values: a plain value is that value; a mapping has one or more conditions,
 * all of which must hold.
 */
final class ValueReader {

  private static final String IGNORING_CASE = "ignoringCase";

  /** Keys of a condition. */
  static final Set<String> KEYS =
      Set.of(
          "is",
          "contains",
          "startsWith",
          "endsWith",
          "pattern",
          "oneOf",
          "missing",
          "present",
          "not",
          "each",
          "list",
          "inAnyOrder",
          "size",
          "atLeast",
          "atMost",
          "between",
          "before",
          "after",
          "instant",
          "json",
          "allOf",
          "anyOf",
          IGNORING_CASE);

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
    Fields fields = Fields.of(node, "condition", KEYS, problems);
    boolean anyCase = fields.isSet(IGNORING_CASE);
    List<ValueCondition> all = new ArrayList<>();
    for (Node.Member member : fields.members()) {
      if (KEYS.contains(member.name()) && !member.name().equals(IGNORING_CASE)) {
        problems
            .attempt(member.value(), () -> condition(member.name(), member.value(), anyCase))
            .flatMap(Function.identity())
            .ifPresent(all::add);
      }
    }
    if (fields.members().isEmpty()) {
      problems.add(node, "an empty mapping has no condition. Fix: { present: true }.");
    }
    return all.stream().reduce(ValueCondition::and);
  }

  private static ValueCondition plain(Node node) {
    JsonNode scalar = node.json();
    if (scalar.isNumber()) {
      return Values.is(scalar.decimalValue());
    }
    if (scalar.isBoolean()) {
      return Values.is(scalar.booleanValue());
    }
    return scalar.isNull() ? Values.isNull() : Values.is(scalar.textValue());
  }

  private Optional<ValueCondition> condition(String name, Node node, boolean anyCase) {
    return switch (name) {
      case "missing", "present" -> Optional.of(existence(name, node));
      case "not" -> read(node).map(Values::not);
      case "each" -> read(node).map(Values::each);
      case "allOf" -> combined(node, ValueCondition::and);
      case "anyOf" -> combined(node, ValueCondition::or);
      case "list" -> Optional.of(Values.list(conditions(node)));
      case "inAnyOrder" -> Optional.of(Values.inAnyOrder(conditions(node)));
      case "size" -> read(node).map(Values::size);
      case "json" -> Optional.of(Values.isJson(node.json().toString()));
      case "atLeast" -> Optional.of(Values.atLeast(number(node)));
      case "atMost" -> Optional.of(Values.atMost(number(node)));
      case "between" -> Optional.of(between(node));
      case "before", "after", "instant" -> Optional.of(time(name, node));
      default -> Optional.of(cased(name, node, anyCase));
    };
  }

  private static ValueCondition cased(String name, Node node, boolean anyCase) {
    if (name.equals("is") && !node.isText()) {
      return plain(scalar(node));
    }
    TextCondition text =
        switch (name) {
          case "contains" -> Values.contains(text(node));
          case "startsWith" -> Values.startsWith(text(node));
          case "endsWith" -> Values.endsWith(text(node));
          case "pattern" -> Values.pattern(text(node));
          case "oneOf" -> Values.oneOf(texts(node));
          default -> Values.is(text(node));
        };
    return anyCase ? text.ignoringCase() : text;
  }

  private static ValueCondition existence(String name, Node node) {
    if (!node.json().isBoolean()) {
      throw new IllegalArgumentException("expected true or false, found " + node.kind() + ".");
    }
    return node.json().booleanValue() == name.equals("missing")
        ? Values.missing()
        : Values.present();
  }

  private Optional<ValueCondition> combined(Node node, BinaryOperator<ValueCondition> how) {
    return Fields.elements(node).stream().flatMap(each -> read(each).stream()).reduce(how);
  }

  private static ValueCondition between(Node node) {
    List<Node> bounds = Fields.elements(node);
    if (bounds.size() != 2) {
      throw new IllegalArgumentException("between needs two numbers: [0.5, 4.5].");
    }
    return Values.between(number(bounds.get(0)), number(bounds.get(1)));
  }

  private static ValueCondition time(String name, Node node) {
    String text = text(node);
    if (!name.equals("instant") && text.indexOf('T') < 0) {
      LocalDate date = parsed(text, LocalDate::parse);
      return name.equals("before") ? Values.before(date) : Values.after(date);
    }
    Instant instant = instant(text);
    return switch (name) {
      case "before" -> Values.before(instant);
      case "after" -> Values.after(instant);
      default -> Values.is(instant);
    };
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

  private static Number number(Node node) {
    if (!node.json().isNumber()) {
      throw new IllegalArgumentException("expected a number, found " + node.kind() + ".");
    }
    return node.json().decimalValue();
  }

  private static String text(Node node) {
    return scalar(node).text();
  }

  private static String[] texts(Node node) {
    return Fields.elements(node).stream().map(ValueReader::text).toArray(String[]::new);
  }

  private Object[] conditions(Node node) {
    return Fields.elements(node).stream().flatMap(each -> read(each).stream()).toArray();
  }

  private static Node scalar(Node node) {
    if (node.isMapping() || node.isSequence()) {
      throw new IllegalArgumentException("expected a plain value, found " + node.kind() + ".");
    }
    return node;
  }
}
