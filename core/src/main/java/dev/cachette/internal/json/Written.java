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

/** Makes the forms in which stub files write what was made in Java. */
public final class Written {

  private static final JsonNodeFactory MAKE = JsonNodeFactory.instance;

  private Written() {}

  /** A text. */
  public static JsonNode text(String text) {
    return MAKE.textNode(text);
  }

  /** A number. */
  public static JsonNode number(BigDecimal number) {
    return number.scale() <= 0
        ? MAKE.numberNode(number.toBigIntegerExact())
        : MAKE.numberNode(number);
  }

  /** A truth value. */
  public static JsonNode flag(boolean flag) {
    return MAKE.booleanNode(flag);
  }

  /** Texts. */
  public static ArrayNode texts(Collection<String> texts) {
    ArrayNode array = MAKE.arrayNode();
    texts.forEach(array::add);
    return array;
  }

  /** An object with one member. */
  public static ObjectNode member(String name, JsonNode value) {
    return MAKE.objectNode().set(name, value);
  }

  /** An object with one member, where its value can be written. */
  public static Optional<JsonNode> member(String name, Optional<JsonNode> value) {
    return value.map(it -> member(name, it));
  }

  /** An object in an object, {@code {headers: {name: value}}}, where the value can be written. */
  public static Optional<JsonNode> member(String outer, String inner, Optional<JsonNode> value) {
    return value.map(it -> member(outer, member(inner, it)));
  }

  /** All of them as an array, where each can be written. */
  public static Optional<JsonNode> all(List<Optional<JsonNode>> each) {
    if (each.stream().anyMatch(Optional::isEmpty)) {
      return Optional.empty();
    }
    ArrayNode array = MAKE.arrayNode();
    each.forEach(it -> array.add(it.orElseThrow()));
    return Optional.of(array);
  }

  /**
   * Adds the members of one object to another: objects are merged, arrays joined.
   *
   * @return whether there was room; where a member has another value already, nothing is added
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
