package dev.cachette.internal.yaml;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * One value of a text, and where it stands.
 *
 * @param line its line, from 1
 * @param column its column, from 1
 * @param trail the way to it from the root; where an alias names it, that of its anchor
 * @param scalar its value, if it has no parts
 * @param members its members, in their order; null if it is no mapping
 * @param elements its elements; null if it is no sequence
 */
public record Node(
    int line,
    int column,
    Trail trail,
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
  public record Member(String name, Node key, Node value) {}

  /** This value, as if it began where another one does. */
  public Node startingAt(Node other) {
    return new Node(other.line, other.column, trail, scalar, members, elements);
  }

  /** The way to it from the root: {@code stubs[0].answer}. */
  public String path() {
    return trail.toString();
  }

  /** Whether it has members. */
  public boolean isMapping() {
    return members != null;
  }

  /** Whether it has elements. */
  public boolean isSequence() {
    return elements != null;
  }

  /** Whether it is a text. */
  public boolean isText() {
    return scalar != null && scalar.isTextual();
  }

  /** The value as it is written; empty where it has parts. */
  public String text() {
    return scalar == null ? "" : scalar.asText();
  }

  /** Whether a text in it, or the name of a member, has this part. */
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

  /** The value as JSON. */
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

  /** What it is, for messages: {@code a mapping}, {@code the text "04:10"}. */
  public String kind() {
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
