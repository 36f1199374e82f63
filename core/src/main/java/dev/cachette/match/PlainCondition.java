// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;

/** A condition that needs no further explanation if a value does not meet it. */
final class PlainCondition extends ValueCondition {

  private final String words;
  private final Optional<JsonNode> written;
  private final Predicate<JsonNode> test;

  PlainCondition(String words, Optional<JsonNode> written, Predicate<JsonNode> test) {
    this.words = words;
    this.written = written;
    this.test = test;
  }

  @Override
  Optional<JsonNode> written() {
    return written;
  }

  @Override
  boolean holds(Found found) {
    return found.items().stream().anyMatch(test);
  }

  @Override
  String describe(UnaryOperator<String> mask) {
    return words;
  }
}
