// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.yaml;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * One value of a text, with its place.
 *
 * @param line its line, from 1
 * @param column its column, from 1
 * @param trail its path from the root; for an alias, the path of its anchor
 * @param scalar its value, if it is a scalar
 * @param members its members, in order; null if it is not a mapping
 * @param elements its elements; null if it is not a sequence
 */
public record Node(
    int line,
    int column,
    NodePath trail,
    @Nullable JsonNode scalar,
    @Nullable List<Member> members,
    @Nullable List<Node> elements) {

  /**
   * A member of a mapping.
   *
   * @param name its name
   * @param key the name as a node, for its place
   * @param value its value
   */
  public record Member(String name, Node key, Node value) {}

  /** Returns this value at the place of another one. */
  public Node startingAt(Node other) {
    return new Node(other.line, other.column, trail, scalar, members, elements);
  }

  /** Returns its path from the root: {@code stubs[0].answer}. */
  public String path() {
    return trail.toString();
  }

  /** Returns true if it is a mapping. */
  public boolean isMapping() {
    return members != null;
  }

  /** Returns true if it is a sequence. */
  public boolean isSequence() {
    return elements != null;
  }

  /** Returns true if it is a string. */
  public boolean isText() {
    return scalar != null && scalar.isTextual();
  }

  /** Returns the scalar as written; empty for others. */
  public String text() {
    return scalar == null ? "" : scalar.asText();
  }

  /** Returns true if a string in it, or the name of a member, contains this text. */
  public boolean mentions(String part) {
    if (members != null) {
      for (Member member : members) {
        if (member.name().contains(part) || member.value().mentions(part)) {
          return true;
        }
      }
    }
    if (elements != null) {
      for (Node element : elements) {
        if (element.mentions(part)) {
          return true;
        }
      }
    }
    return isText() && scalar.textValue().contains(part);
  }

  /** Returns the value as JSON. */
  public JsonNode json() {
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

  /** Returns a description for messages: {@code a mapping}, {@code "04:10"}. */
  public String kind() {
    if (members != null) {
      return "a mapping";
    }
    if (elements != null) {
      return "a sequence";
    }
    return scalar == null || scalar.isNull() ? "nothing" : scalar.toString();
  }
}
