// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.json;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Finds schemas that refer to themselves for the same value, which no validator can end: {@code
 * {"$ref": "#"}}, or {@code allOf} of itself (JSON Schema 2020-12, section 9.4.1). A reference from
 * a member or an element is none of them.
 */
final class SchemaLoops {

  private static final List<String> SAME_VALUE =
      List.of("allOf", "anyOf", "oneOf", "not", "if", "then", "else", "dependentSchemas");

  private final JsonNode root;

  /** By pointer: false while it is looked at, true when it is known to end. */
  private final Map<String, Boolean> ends = new HashMap<>();

  private SchemaLoops(JsonNode root) {
    this.root = root;
  }

  /** Returns the pointer of a schema that refers to itself; empty if there is none. */
  static Optional<String> in(JsonNode schema) {
    return new SchemaLoops(schema).below("", schema);
  }

  /** Looks at a schema, and at all that are in it. */
  private Optional<String> below(String pointer, JsonNode schema) {
    Optional<String> found = loop(pointer, schema);
    if (found.isPresent()) {
      return found;
    }
    for (Map.Entry<String, JsonNode> each : children(pointer, schema)) {
      Optional<String> within = below(each.getKey(), each.getValue());
      if (within.isPresent()) {
        return within;
      }
    }
    return Optional.empty();
  }

  private Optional<String> loop(String pointer, JsonNode schema) {
    if (!schema.isObject()) {
      return Optional.empty();
    }
    Boolean known = ends.get(pointer);
    if (known != null) {
      return known ? Optional.empty() : Optional.of(pointer);
    }
    ends.put(pointer, false);
    String reference = schema.path("$ref").asText();
    if (reference.startsWith("#/") || reference.equals("#")) {
      String target = reference.substring(1);
      Optional<String> found = loop(target, root.at(target));
      if (found.isPresent()) {
        return found;
      }
    }
    for (String keyword : SAME_VALUE) {
      Optional<String> found = applied(pointer + "/" + keyword, keyword, schema.path(keyword));
      if (found.isPresent()) {
        return found;
      }
    }
    ends.put(pointer, true);
    return Optional.empty();
  }

  /** Looks at what a keyword applies to the same value: one schema, or several. */
  private Optional<String> applied(String pointer, String keyword, JsonNode value) {
    boolean several = value.isArray() || keyword.equals("dependentSchemas");
    if (!several) {
      return loop(pointer, value);
    }
    for (Map.Entry<String, JsonNode> each : children(pointer, value)) {
      Optional<String> found = loop(each.getKey(), each.getValue());
      if (found.isPresent()) {
        return found;
      }
    }
    return Optional.empty();
  }

  private static List<Map.Entry<String, JsonNode>> children(String pointer, JsonNode parent) {
    List<Map.Entry<String, JsonNode>> children = new ArrayList<>();
    for (Map.Entry<String, JsonNode> member : parent.properties()) {
      String step = member.getKey().replace("~", "~0").replace("/", "~1");
      children.add(Map.entry(pointer + "/" + step, member.getValue()));
    }
    for (int at = 0; at < (parent.isArray() ? parent.size() : 0); at++) {
      children.add(Map.entry(pointer + "/" + at, parent.get(at)));
    }
    return children;
  }
}
