// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.json;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.math.BigDecimal;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Builds stub-file nodes for conditions and answers made in Java. */
public final class StubNodes {

  private static final JsonNodeFactory MAKE = JsonNodeFactory.instance;

  private StubNodes() {}

  /** Returns a string. */
  public static JsonNode text(String text) {
    return MAKE.textNode(text);
  }

  /** Returns a number. */
  public static JsonNode number(BigDecimal number) {
    return number.scale() <= 0
        ? MAKE.numberNode(number.toBigIntegerExact())
        : MAKE.numberNode(number);
  }

  /** Returns a boolean. */
  public static JsonNode flag(boolean flag) {
    return MAKE.booleanNode(flag);
  }

  /** Returns an array of strings. */
  public static ArrayNode texts(Collection<String> texts) {
    ArrayNode array = MAKE.arrayNode();
    texts.forEach(array::add);
    return array;
  }

  /** Returns an object without members. */
  public static ObjectNode object() {
    return MAKE.objectNode();
  }

  /** Returns an object with one member. */
  public static ObjectNode member(String name, JsonNode value) {
    return MAKE.objectNode().set(name, value);
  }

  /** Returns an object with one member, if its value can be written. */
  public static Optional<JsonNode> member(String name, Optional<JsonNode> value) {
    return value.map(it -> member(name, it));
  }

  /**
   * Returns an object in an object, {@code {headers: {name: value}}}, if the value can be written.
   */
  public static Optional<JsonNode> member(String outer, String inner, Optional<JsonNode> value) {
    return value.map(it -> member(outer, member(inner, it)));
  }

  /** Returns an array, if each element can be written. */
  public static Optional<JsonNode> all(List<Optional<JsonNode>> each) {
    if (each.stream().anyMatch(Optional::isEmpty)) {
      return Optional.empty();
    }
    ArrayNode array = MAKE.arrayNode();
    each.forEach(it -> array.add(it.orElseThrow()));
    return Optional.of(array);
  }

  /**
   * Adds the members of one object to another: objects are merged, arrays concatenated.
   *
   * @return false if a member has another value already; then nothing is added
   */
  public static boolean merge(ObjectNode into, JsonNode more) {
    if (!fits(into, more)) {
      return false;
    }
    for (Map.Entry<String, JsonNode> member : more.properties()) {
      JsonNode there = into.get(member.getKey());
      if (there instanceof ObjectNode object) {
        merge(object, member.getValue());
      } else if (there instanceof ArrayNode array) {
        member.getValue().forEach(array::add);
      } else {
        into.set(member.getKey(), member.getValue().deepCopy());
      }
    }
    return true;
  }

  private static boolean fits(JsonNode there, JsonNode more) {
    if (there == null || there.isArray() && more.isArray()) {
      return true;
    }
    return there.isObject()
        && more.isObject()
        && more.properties().stream()
            .allMatch(member -> fits(there.get(member.getKey()), member.getValue()));
  }
}
