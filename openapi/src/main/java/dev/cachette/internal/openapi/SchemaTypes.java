// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import dev.cachette.internal.json.Json;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;

/** The JSON types that a schema allows, to convert texts of parameters and forms. */
final class SchemaTypes {

  private static final int DEEPEST = 8;

  private SchemaTypes() {}

  /** Returns the types that occur anywhere in it; none if there are none. */
  static Set<String> of(Element schema) {
    Set<String> types = new LinkedHashSet<>();
    collect(schema, types, 0);
    return types;
  }

  private static void collect(Element schema, Set<String> types, int depth) {
    Element there = schema.followed();
    JsonNode type = there.json().path("type");
    if (type.isTextual()) {
      types.add(type.asText());
    }
    type.forEach(each -> types.add(each.asText()));
    if (there.isSet("nullable")) {
      types.add("null");
    }
    if (types.isEmpty() && there.json().has("properties")) {
      types.add("object");
    }
    if (depth < DEEPEST) {
      for (String keyword : List.of("allOf", "anyOf", "oneOf")) {
        there.raw(keyword).elements().forEach(each -> collect(each, types, depth + 1));
      }
    }
  }

  /** Returns the schema of a property, wherever it is declared; missing if it is not. */
  static Element property(Element schema, String name) {
    return property(schema, name, 0);
  }

  private static Element property(Element schema, String name, int depth) {
    Element there = schema.followed();
    Element found = there.raw("properties").raw(name);
    if (found.isThere() || depth >= DEEPEST) {
      return found;
    }
    for (String keyword : List.of("allOf", "anyOf", "oneOf")) {
      for (Element each : there.raw(keyword).elements()) {
        Element inner = property(each, name, depth + 1);
        if (inner.isThere()) {
          return inner;
        }
      }
    }
    return there.get("additionalProperties").json().isObject()
        ? there.get("additionalProperties")
        : found;
  }

  /** Converts a text: to a number if the schema allows one, and so on. */
  static JsonNode value(String text, Element schema) {
    Set<String> types = of(schema);
    boolean number = types.contains("number") || types.contains("integer");
    JsonNode json = Json.isValid(text) ? Json.tree(text) : null;
    if (json != null
        && (number && json.isNumber()
            || types.contains("boolean") && json.isBoolean()
            || types.contains("null") && json.isNull() && !types.contains("string"))) {
      return json;
    }
    return JsonNodeFactory.instance.textNode(text);
  }
}
