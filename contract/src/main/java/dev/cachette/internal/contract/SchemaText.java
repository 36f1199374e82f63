// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** Says what a schema requires of a value, in words. */
final class SchemaText {

  private static final Map<String, String> TYPES =
      Map.of(
          "string", "a string",
          "number", "a number",
          "integer", "an integer",
          "boolean", "a boolean",
          "object", "an object",
          "array", "an array",
          "null", "null");

  private SchemaText() {}

  /** Returns the words: {@code a string or null}, {@code one of "open", "closed"}. */
  static String of(JsonNode schema) {
    if (schema.has("const")) {
      return schema.get("const").toString();
    }
    if (schema.has("enum")) {
      List<String> values = new ArrayList<>();
      schema.get("enum").forEach(it -> values.add(it.toString()));
      return "one of " + String.join(", ", values);
    }
    if (schema.has("anyOf")) {
      List<String> each = new ArrayList<>();
      schema.get("anyOf").forEach(it -> each.add(of(it)));
      return String.join(" or ", each);
    }
    String type = type(schema.path("type"));
    if (schema.has("format")) {
      return type + " with the format " + schema.get("format").asText();
    }
    if (schema.has("pattern")) {
      return type + " that matches " + pattern(schema.get("pattern").asText());
    }
    return schema.has("minItems") && schema.has("items") && !schema.has("maxItems")
        ? type + " of at least " + elements(schema.get("minItems").asInt())
        : type;
  }

  /** Returns a number of elements. */
  static String elements(int number) {
    return number == 1 ? "1 element" : number + " elements";
  }

  private static String pattern(String written) {
    return written.startsWith("^(?:") && written.endsWith(")$")
        ? written.substring(4, written.length() - 2)
        : written;
  }

  /** Returns the words for the value of the keyword {@code type}. */
  static String type(JsonNode type) {
    if (type.isArray()) {
      List<String> each = new ArrayList<>();
      type.forEach(it -> each.add(TYPES.getOrDefault(it.asText(), it.asText())));
      return String.join(" or ", each);
    }
    return TYPES.getOrDefault(type.asText(), "any value");
  }
}
