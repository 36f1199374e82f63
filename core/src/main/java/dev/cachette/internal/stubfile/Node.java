package dev.cachette.internal.stubfile;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * One value of a stub file, and where it stands.
 *
 * @param line its line, from 1
 * @param column its column, from 1
 * @param path the way to it from the root: {@code stubs[0].answer}
 * @param scalar its value, if it has no parts
 * @param members its members, in their order; null if it is no mapping
 * @param elements its elements; null if it is no sequence
 */
record Node(
    int line,
    int column,
    String path,
    @Nullable JsonNode scalar,
    @Nullable List<Member> members,
    @Nullable List<Node> elements) {

  /**
   * A member of a mapping.
   *
   * @param name its name
   * @param key the name as a node, for where it stands
   * @param value its value
   */
  record Member(String name, Node key, Node value) {}

  boolean isMapping() {
    return members != null;
  }

  boolean isSequence() {
    return elements != null;
  }

  boolean isText() {
    return scalar != null && scalar.isTextual();
  }

  String text() {
    return scalar == null ? "" : scalar.asText();
  }

  /** The value as JSON. */
  JsonNode json() {
    if (members != null) {
      ObjectNode object = JsonNodeFactory.instance.objectNode();
      members.forEach(member -> object.set(member.name(), member.value().json()));
      return object;
    }
    if (elements != null) {
      ArrayNode array = JsonNodeFactory.instance.arrayNode();
      elements.forEach(element -> array.add(element.json()));
      return array;
    }
    return scalar == null ? JsonNodeFactory.instance.nullNode() : scalar;
  }

  /** What it is, for messages: {@code a mapping}, {@code the text "04:10"}. */
  String kind() {
    if (members != null) {
      return "a mapping";
    }
    if (elements != null) {
      return "a sequence";
    }
    return scalar == null || scalar.isNull()
        ? "nothing"
        : (scalar.isTextual() ? "the text " : "") + scalar;
  }
}
