// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.fields.Key;
import dev.cachette.internal.fields.Keys;
import dev.cachette.internal.fields.Shape;
import dev.cachette.internal.yaml.Node;
import dev.cachette.match.TextCondition;
import dev.cachette.match.ValueCondition;
import dev.cachette.match.Values;
import java.util.Optional;
import java.util.function.Function;

/** The keys of a condition on a value. */
final class ValueKeys {

  /** Reads the condition under a key. */
  @FunctionalInterface
  interface Reading {

    /**
     * Returns the condition; empty if it has problems, or belongs to others.
     *
     * @param anyCase whether the condition is to ignore case
     */
    Optional<ValueCondition> of(ValueReader reader, Node value, boolean anyCase);
  }

  static final String IGNORING_CASE = "ignoringCase";

  private static final Shape SEVERAL = Shape.list(StubShapes.VALUE);

  static final Keys<Reading> ALL =
      Keys.of(
          new Key<>(
              "is",
              "This string, number or boolean, or null.",
              Shape.ANY,
              (reader, value, anyCase) ->
                  Optional.of(
                      value.isText()
                          ? cased(Values.is(value.text()), anyCase)
                          : ValueReader.plain(ValueReader.scalar(value)))),
          text("contains", "A string that contains this text.", Values::contains),
          text("startsWith", "A string that starts with this text.", Values::startsWith),
          text("endsWith", "A string that ends with this text.", Values::endsWith),
          new Key<>(
              "pattern",
              "A regular expression that matches the whole value.",
              Shape.TEXT,
              (reader, value, anyCase) ->
                  Optional.of(cased(Values.pattern(ValueReader.text(value)), anyCase))),
          new Key<>(
              "oneOf",
              "One of these strings.",
              Shape.list(Shape.SCALAR),
              (reader, value, anyCase) ->
                  Optional.of(cased(Values.oneOf(ValueReader.texts(value)), anyCase))),
          new Key<>(
              IGNORING_CASE,
              "Whether the conditions on text next to it ignore case.",
              Shape.FLAG,
              (reader, value, anyCase) -> Optional.empty()),
          existence("missing", "No value.", Values.missing(), Values.present()),
          existence("present", "Any value.", Values.present(), Values.missing()),
          new Key<>(
              "not",
              "Not this.",
              StubShapes.VALUE,
              (reader, value, anyCase) -> reader.read(value).map(Values::not)),
          new Key<>(
              "each",
              "Every value meets this condition.",
              StubShapes.VALUE,
              (reader, value, anyCase) -> reader.read(value).map(Values::each)),
          new Key<>(
              "list",
              "Exactly these values, in this order.",
              SEVERAL,
              (reader, value, anyCase) -> Optional.of(Values.list(reader.conditions(value)))),
          new Key<>(
              "inAnyOrder",
              "Exactly these values, in any order.",
              SEVERAL,
              (reader, value, anyCase) -> Optional.of(Values.inAnyOrder(reader.conditions(value)))),
          new Key<>(
              "size",
              "The number of values, or of elements of an array.",
              StubShapes.VALUE,
              (reader, value, anyCase) -> reader.read(value).map(Values::size)),
          new Key<>(
              "length",
              "The number of characters of a text.",
              StubShapes.VALUE,
              (reader, value, anyCase) -> reader.read(value).map(Values::length)),
          read(
              "atLeast",
              "A number greater than or equal to this one.",
              Shape.NUMBER,
              value -> Values.atLeast(ValueReader.number(value))),
          read(
              "atMost",
              "A number less than or equal to this one.",
              Shape.NUMBER,
              value -> Values.atMost(ValueReader.number(value))),
          read(
              "between",
              "A number in this range, both ends included.",
              ValueKeys::twoNumbers,
              ValueReader::between),
          read(
              "before",
              "A date or an instant before this one.",
              Shape.TEXT,
              value -> ValueReader.time(value, Values::before, Values::before)),
          read(
              "after",
              "A date or an instant after this one.",
              Shape.TEXT,
              value -> ValueReader.time(value, Values::after, Values::after)),
          read(
              "instant",
              "This instant, whatever its offset.",
              Shape.TEXT,
              value -> Values.is(ValueReader.instant(ValueReader.text(value)))),
          read(
              "json",
              "The same JSON, with members in any order.",
              Shape.ANY,
              value -> Values.isJson(value.json().toString())),
          new Key<>(
              "allOf",
              "All of these.",
              SEVERAL,
              (reader, value, anyCase) -> reader.combined(value, ValueCondition::and)),
          new Key<>(
              "anyOf",
              "One of these.",
              SEVERAL,
              (reader, value, anyCase) -> reader.combined(value, ValueCondition::or)));

  private ValueKeys() {}

  private static Key<Reading> read(
      String name, String help, Shape shape, Function<Node, ValueCondition> condition) {
    return new Key<>(
        name, help, shape, (reader, value, anyCase) -> Optional.of(condition.apply(value)));
  }

  private static Key<Reading> text(
      String name, String help, Function<String, TextCondition> condition) {
    return new Key<>(
        name,
        help,
        Shape.SCALAR,
        (reader, value, anyCase) ->
            Optional.of(cased(condition.apply(ValueReader.text(value)), anyCase)));
  }

  private static Key<Reading> existence(
      String name, String help, ValueCondition ifTrue, ValueCondition ifFalse) {
    return read(name, help, Shape.FLAG, value -> ValueReader.flag(value) ? ifTrue : ifFalse);
  }

  private static ValueCondition cased(TextCondition condition, boolean anyCase) {
    return anyCase ? condition.ignoringCase() : condition;
  }

  private static ObjectNode twoNumbers() {
    return Shape.sequence(Shape.NUMBER).schema().put("minItems", 2).put("maxItems", 2);
  }
}
