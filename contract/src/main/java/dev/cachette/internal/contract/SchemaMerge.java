// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/** Joins two schemas that do not conflict: what meets both, meets the result. */
final class SchemaMerge {

  private static final Set<String> JOINED = Set.of("type", "required", "properties", "items");

  private SchemaMerge() {}

  /** Returns the joined schema; empty if one schema of these keywords cannot say it. */
  static Optional<JsonNode> of(JsonNode one, JsonNode other) {
    if (one.equals(other)) {
      return Optional.of(one.deepCopy());
    }
    if (!(one instanceof ObjectNode left) || !(other instanceof ObjectNode right)) {
      return Optional.empty();
    }
    ObjectNode joined = left.deepCopy();
    for (Map.Entry<String, JsonNode> keyword : right.properties()) {
      if (!JOINED.contains(keyword.getKey())) {
        JsonNode there = left.get(keyword.getKey());
        if (there != null && !there.equals(keyword.getValue())) {
          return Optional.empty();
        }
        joined.set(keyword.getKey(), keyword.getValue());
      }
    }
    return type(left, right, joined) && items(left, right, joined) && members(left, right, joined)
        ? Optional.of(joined)
        : Optional.empty();
  }

  private static boolean type(ObjectNode one, ObjectNode other, ObjectNode joined) {
    JsonNode left = one.get("type");
    JsonNode right = other.get("type");
    if (left == null || right == null || left.equals(right)) {
      if (left == null && right != null) {
        joined.set("type", right);
      }
      return true;
    }
    Set<String> types = names(left);
    Set<String> others = names(right);
    // A test with 4.5 shows that the consumer takes any number, if another one only has 4.
    boolean number = types.contains("number") || others.contains("number");
    if (number) {
      widen(types);
      widen(others);
    }
    types.retainAll(others);
    if (types.isEmpty()) {
      return false;
    }
    if (types.size() == 1) {
      joined.put("type", types.iterator().next());
    } else {
      joined.putArray("type").addAll(types.stream().map(joined::textNode).toList());
    }
    return true;
  }

  private static void widen(Set<String> types) {
    if (types.remove("integer")) {
      types.add("number");
    }
  }

  private static Set<String> names(JsonNode type) {
    Set<String> names = new TreeSet<>();
    if (type.isTextual()) {
      names.add(type.asText());
    }
    type.forEach(it -> names.add(it.asText()));
    return names;
  }

  private static boolean items(ObjectNode one, ObjectNode other, ObjectNode joined) {
    JsonNode right = other.get("items");
    JsonNode left = one.get("items");
    if (left == null || right == null) {
      if (right != null) {
        joined.set("items", right);
      }
      // An array by places cannot be joined with one by items.
      return one.has("prefixItems") == other.has("prefixItems") || left == null && right == null;
    }
    Optional<JsonNode> both = of(left, right);
    both.ifPresent(it -> joined.set("items", it));
    return both.isPresent();
  }

  private static boolean members(ObjectNode one, ObjectNode other, ObjectNode joined) {
    Set<String> required = new TreeSet<>();
    one.path("required").forEach(it -> required.add(it.asText()));
    other.path("required").forEach(it -> required.add(it.asText()));
    ObjectNode properties = joined.objectNode();
    Set<String> names = new TreeSet<>();
    one.path("properties").fieldNames().forEachRemaining(names::add);
    other.path("properties").fieldNames().forEachRemaining(names::add);
    for (String name : names) {
      JsonNode left = one.path("properties").get(name);
      JsonNode right = other.path("properties").get(name);
      Optional<JsonNode> both =
          left == null || right == null
              ? Optional.of(left == null ? right : left)
              : of(left, right);
      if (both.isEmpty()) {
        return false;
      }
      properties.set(name, both.get());
    }
    if (!properties.isEmpty()) {
      joined.remove(Set.of("required", "properties"));
      if (!required.isEmpty()) {
        joined.putArray("required").addAll(required.stream().map(joined::textNode).toList());
      }
      joined.set("properties", properties);
    }
    return true;
  }
}
