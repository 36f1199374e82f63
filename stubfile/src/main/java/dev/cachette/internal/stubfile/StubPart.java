// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.fields.Key;
import dev.cachette.internal.fields.Shape;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.internal.model.StubSpec;
import java.math.BigDecimal;
import java.time.Instant;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.BiFunction;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;

/**
 * The part of a stub that one key says, besides its request and answers.
 *
 * @param reading reads the value
 * @param writing writes it
 */
record StubPart(Reading reading, Writing writing) {

  /** Reads a value. */
  @FunctionalInterface
  interface Reading {

    /**
     * Returns what the key changes of a stub; empty if it is absent, or has problems, which are
     * noted.
     */
    Optional<UnaryOperator<StubSpec>> of(StubFields stub);
  }

  /** Writes a value. */
  @FunctionalInterface
  interface Writing {

    /** Returns the value; empty if the stub has none. */
    Optional<JsonNode> of(StubSpec stub) throws Unwritable;
  }

  /** Returns a key that is true or absent. */
  static Key<StubPart> flag(
      String name, String help, UnaryOperator<StubSpec> set, Predicate<StubSpec> isSet) {
    return key(
        name,
        help,
        Shape.FLAG,
        stub -> stub.fields().isSet(name) ? Optional.of(set) : Optional.empty(),
        stub -> isSet.test(stub) ? Optional.of(StubNodes.flag(true)) : Optional.empty());
  }

  /** Returns a key for a whole number from 1. */
  static Key<StubPart> positive(
      String name,
      String help,
      BiFunction<StubSpec, Integer, StubSpec> set,
      Function<StubSpec, OptionalInt> get) {
    return key(
        name,
        help,
        Shape.POSITIVE,
        stub -> stub.fields().positive(name).map(number -> it -> set.apply(it, number)),
        stub -> number(get.apply(stub)));
  }

  private static Optional<JsonNode> number(OptionalInt number) {
    return number.isPresent()
        ? Optional.of(StubNodes.number(BigDecimal.valueOf(number.getAsInt())))
        : Optional.empty();
  }

  /**
   * Returns a key for an instant.
   *
   * @param absent what it is without the key
   */
  static Key<StubPart> instant(
      String name,
      String help,
      BiFunction<StubSpec, Instant, StubSpec> set,
      Function<StubSpec, Instant> get,
      Instant absent) {
    return key(
        name,
        help,
        Shape.TEXT,
        stub ->
            stub.attempt(name, at -> ValueReader.instant(at.text()))
                .map(at -> it -> set.apply(it, at)),
        stub ->
            Optional.of(get.apply(stub))
                .filter(at -> !at.equals(absent))
                .map(at -> StubNodes.text(at.toString())));
  }

  /** Returns a key. */
  static Key<StubPart> key(
      String name, String help, Shape shape, Reading reading, Writing writing) {
    return new Key<>(name, help, shape, new StubPart(reading, writing));
  }
}
