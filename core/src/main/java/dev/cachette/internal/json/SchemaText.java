// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.json;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;

/** Says what a schema requires of a value, in words. */
public final class SchemaText {

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
  public static String of(JsonNode schema) {
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
  public static String elements(int number) {
    return number == 1 ? "1 element" : number + " elements";
  }

  private static String pattern(String written) {
    return written.startsWith("^(?:") && written.endsWith(")$")
        ? written.substring(4, written.length() - 2)
        : written;
  }

  /** Returns the words for the value of the keyword {@code type}. */
  private static String type(JsonNode type) {
    List<String> names = new ArrayList<>();
    type.forEach(it -> names.add(it.asText()));
    if (type.isTextual()) {
      names.add(type.asText());
    }
    return names.isEmpty() ? "any value" : types(names);
  }

  /** Returns the words for one of several types: {@code a string or null}. */
  public static String types(Collection<String> names) {
    return names.stream().map(it -> TYPES.getOrDefault(it, it)).collect(Collectors.joining(" or "));
  }
}
