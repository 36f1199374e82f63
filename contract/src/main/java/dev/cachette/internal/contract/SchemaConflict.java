// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.json.SchemaText;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/**
 * Two needs that no response can meet.
 *
 * @param path their place
 * @param one the first
 * @param other the second
 */
record SchemaConflict(String path, String one, String other) {

  /** Returns the first conflict of two schemas. */
  static Optional<SchemaConflict> of(JsonNode one, JsonNode other) {
    return at("$", one, other);
  }

  private static Optional<SchemaConflict> at(String path, JsonNode one, JsonNode other) {
    if (excludes(one, other) || excludes(other, one) || typesExclude(one, other)) {
      return Optional.of(new SchemaConflict(path, SchemaText.of(one), SchemaText.of(other)));
    }
    for (Map.Entry<String, JsonNode> member : one.path("properties").properties()) {
      JsonNode there = other.path("properties").get(member.getKey());
      if (there != null) {
        Optional<SchemaConflict> within =
            at(path + "." + member.getKey(), member.getValue(), there);
        if (within.isPresent()) {
          return within;
        }
      }
    }
    return one.path("items").isObject() && other.path("items").isObject()
        ? at(path + "[*]", one.get("items"), other.get("items"))
        : Optional.empty();
  }

  /** Returns true if the values of one schema are none of the other. */
  private static boolean excludes(JsonNode one, JsonNode other) {
    if (one.has("const")) {
      return other.has("const")
          ? !one.get("const").equals(other.get("const"))
          : other.has("enum") && !contains(other.get("enum"), one.get("const"))
              || isOfNoType(one.get("const"), other);
    }
    if (one.has("enum")) {
      for (JsonNode value : one.get("enum")) {
        boolean allowed = !other.has("enum") || contains(other.get("enum"), value);
        if (allowed && !isOfNoType(value, other)) {
          return false;
        }
      }
      return !other.has("const");
    }
    return false;
  }

  private static boolean contains(JsonNode values, JsonNode value) {
    for (JsonNode each : values) {
      if (each.equals(value)) {
        return true;
      }
    }
    return false;
  }

  private static boolean isOfNoType(JsonNode value, JsonNode schema) {
    Set<String> types = types(schema);
    return !types.isEmpty()
        && !types.contains(wide(TypeSchema.of(value).path("type").asText("null")));
  }

  private static boolean typesExclude(JsonNode one, JsonNode other) {
    Set<String> left = types(one);
    Set<String> right = types(other);
    return !left.isEmpty() && !right.isEmpty() && left.stream().noneMatch(right::contains);
  }

  private static Set<String> types(JsonNode schema) {
    Set<String> types = new TreeSet<>();
    JsonNode type = schema.path("type");
    if (type.isTextual()) {
      types.add(wide(type.asText()));
    }
    type.forEach(it -> types.add(wide(it.asText())));
    return types;
  }

  /** Integers are numbers. */
  private static String wide(String type) {
    return type.equals("integer") ? "number" : type;
  }
}
