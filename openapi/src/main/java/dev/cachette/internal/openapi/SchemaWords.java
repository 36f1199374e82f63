// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;

/** Says what a schema allows, in words. */
final class SchemaWords {

  private static final Map<String, String> TYPES =
      Map.of(
          "string", "a string",
          "number", "a number",
          "integer", "an integer",
          "boolean", "a boolean",
          "object", "an object",
          "array", "an array");

  private SchemaWords() {}

  static String of(JsonNode schema) {
    if (schema.has("const")) {
      return schema.get("const").toString();
    }
    if (schema.has("enum")) {
      List<String> values = new ArrayList<>();
      schema.get("enum").forEach(it -> values.add(it.toString()));
      return "one of " + String.join(", ", values);
    }
    List<String> types = new ArrayList<>();
    JsonNode type = schema.path("type");
    type.forEach(it -> types.add(it.asText()));
    if (type.isTextual()) {
      types.add(type.asText());
    }
    return types.isEmpty() ? "a value" : types(types);
  }

  static String types(Collection<String> types) {
    return types.stream().map(it -> TYPES.getOrDefault(it, it)).collect(Collectors.joining(" or "));
  }
}
