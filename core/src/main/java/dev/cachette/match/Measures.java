// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.IntNode;
import dev.cachette.internal.json.StubNodes;
import java.util.List;
import java.util.function.Function;
import java.util.stream.Stream;

/** Conditions on numbers that values have: how many there are, and how long a text is. */
final class Measures {

  private Measures() {}

  /** Returns a condition for the number of values. */
  static ValueCondition size(ValueCondition condition) {
    return of("size", condition, found -> Stream.of(ListCondition.elements(found).size()));
  }

  /** Returns a condition for the number of characters (Unicode code points, as in JSON Schema). */
  static ValueCondition length(ValueCondition condition) {
    return of(
        "length",
        condition,
        found ->
            found.items().stream()
                .filter(JsonNode::isTextual)
                .map(JsonNode::textValue)
                .map(text -> text.codePointCount(0, text.length())));
  }

  /**
   * Returns a condition that holds if one of the numbers meets the given one.
   *
   * @param name its name, which is its key in stub files
   */
  private static ValueCondition of(
      String name, ValueCondition condition, Function<Found, Stream<Integer>> numbers) {
    return new ManyCondition(
        mask ->
            "a " + name + " of " + condition.describe(mask).replaceFirst("^(the|a) number,? ?", ""),
        StubNodes.member(name, condition.written()),
        found ->
            numbers
                .apply(found)
                .map(
                    number ->
                        new Found(List.of(IntNode.valueOf(number)), found.typed(), found.mask()))
                .anyMatch(condition::holds));
  }
}
