// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.fasterxml.jackson.databind.node.TextNode;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.json.JsonQuery;
import dev.cachette.internal.secret.Masking;
import dev.cachette.internal.xml.XPaths;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.BinaryOperator;
import java.util.function.UnaryOperator;

/**
 * Masks the secrets of stubs in the form of stub files: what is secret by its place in a request or
 * an answer, or by its shape.
 */
final class MaskedStub {

  /** Keys whose value is JSON as it is sent. */
  private static final Set<String> JSON = Set.of("json", "sameJson", "containsJson");

  /** How the conditions on the named values of a request are masked, by their key. */
  private static final Map<String, BinaryOperator<String>> NAMED =
      Map.of(
          "headers", Masking::header,
          "cookies", (name, text) -> Masking.MASK,
          "query", Masking::field,
          "form", Masking::field,
          "path", Masking::field,
          "xpath", (path, text) -> Masking.value(XPaths.lastName(path), text),
          "json", (path, text) -> Masking.value(JsonQuery.parse(path).name(), text));

  private MaskedStub() {}

  /** Returns a stub with its secrets masked. */
  static ObjectNode of(ObjectNode stub) {
    ObjectNode masked = JsonNodeFactory.instance.objectNode();
    for (Map.Entry<String, JsonNode> member : stub.properties()) {
      masked.set(member.getKey(), masked(member.getKey(), member.getValue()));
    }
    return masked;
  }

  /** Returns what a stub, or a condition of it, has under a key. */
  private static JsonNode masked(String key, JsonNode value) {
    BinaryOperator<String> byName = NAMED.get(key);
    if (byName != null && value.isObject()) {
      return each(value, byName);
    }
    return switch (key) {
      case "request", "name" -> leaves(value, Masking::line);
      case "bearer" -> leaves(value, text -> Masking.MASK);
      case "basic" -> each(value, (name, text) -> name.equals("user") ? text : Masking.MASK);
      case "where", "anyOf", "allOf", "not" -> conditions(value);
      default -> content(value);
    };
  }

  private static JsonNode conditions(JsonNode value) {
    if (value.isArray()) {
      ArrayNode all = JsonNodeFactory.instance.arrayNode();
      value.forEach(each -> all.add(conditions(each)));
      return all;
    }
    return value instanceof ObjectNode condition ? of(condition) : content(value);
  }

  /** Returns bodies and answers. */
  private static JsonNode content(JsonNode value) {
    if (value.isArray()) {
      ArrayNode all = JsonNodeFactory.instance.arrayNode();
      value.forEach(each -> all.add(content(each)));
      return all;
    }
    if (!value.isObject()) {
      return leaves(value, text -> Masking.body(Optional.empty(), text));
    }
    ObjectNode masked = JsonNodeFactory.instance.objectNode();
    for (Map.Entry<String, JsonNode> member : value.properties()) {
      String key = member.getKey();
      JsonNode inner = member.getValue();
      masked.set(
          key,
          JSON.contains(key) && inner.isContainerNode()
              ? Json.tree(Masking.body(Optional.of("application/json"), inner.toString()))
              : key.equals("headers") && inner.isObject()
                  ? each(inner, Masking::header)
                  : inner.isTextual()
                      ? TextNode.valueOf(text(key, inner.textValue()))
                      : content(inner));
    }
    return masked;
  }

  private static String text(String key, String text) {
    return key.equals("sameXml") || key.equals("xml")
        ? Masking.body(Optional.of("application/xml"), text)
        : Masking.body(Optional.empty(), text);
  }

  /** Masks the strings of each member, which may be in a condition, by the name of the member. */
  private static JsonNode each(JsonNode members, BinaryOperator<String> byName) {
    ObjectNode masked = JsonNodeFactory.instance.objectNode();
    for (Map.Entry<String, JsonNode> member : members.properties()) {
      masked.set(
          member.getKey(), leaves(member.getValue(), text -> byName.apply(member.getKey(), text)));
    }
    return masked;
  }

  /** Masks all strings in a value. */
  private static JsonNode leaves(JsonNode value, UnaryOperator<String> masking) {
    if (value.isTextual()) {
      return TextNode.valueOf(masking.apply(value.textValue()));
    }
    if (value.isArray()) {
      ArrayNode all = JsonNodeFactory.instance.arrayNode();
      value.forEach(each -> all.add(leaves(each, masking)));
      return all;
    }
    if (value.isObject()) {
      ObjectNode masked = JsonNodeFactory.instance.objectNode();
      value.properties().forEach(it -> masked.set(it.getKey(), leaves(it.getValue(), masking)));
      return masked;
    }
    return value;
  }
}
