// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.json.SchemaText;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;

/** Finds what has changed from one schema to another, place by place. */
final class SchemaChanges {

  /** Keywords of one value: if one is new or other, fewer values are allowed. */
  private static final List<String> NARROWING =
      List.of("const", "enum", "format", "pattern", "prefixItems", "anyOf", "allOf");

  /** Keywords with a number: a higher one is narrower. */
  private static final List<String> LEAST = List.of("minItems", "minLength", "minProperties");

  private final List<Change> changes = new ArrayList<>();

  private SchemaChanges() {}

  /** A change at a place. */
  record Change(String place, String before, String after, boolean asksMore) {}

  static List<Change> of(String place, JsonNode before, JsonNode after) {
    SchemaChanges changes = new SchemaChanges();
    changes.compare(place, before, after);
    return changes.changes;
  }

  private void compare(String place, JsonNode before, JsonNode after) {
    if (before.equals(after)) {
      return;
    }
    boolean narrower = isNarrower(before, after);
    String old = SchemaText.of(before);
    String now = SchemaText.of(after);
    if (narrower || !old.equals(now)) {
      changes.add(new Change(place, old, now, narrower));
    }
    members(place, before, after);
    if (before.path("items").isObject() && after.path("items").isObject()) {
      compare(place + "[*]", before.get("items"), after.get("items"));
    }
  }

  private void members(String place, JsonNode before, JsonNode after) {
    Set<String> wasRequired = names(before.path("required"));
    Set<String> isRequired = names(after.path("required"));
    Set<String> all = new TreeSet<>();
    before.path("properties").fieldNames().forEachRemaining(all::add);
    after.path("properties").fieldNames().forEachRemaining(all::add);
    for (String name : all) {
      String inner = place + "." + name;
      JsonNode old = before.path("properties").get(name);
      JsonNode now = after.path("properties").get(name);
      if (old == null) {
        changes.add(new Change(inner, "", words(now, isRequired.contains(name)), true));
      } else if (now == null) {
        changes.add(new Change(inner, words(old, wasRequired.contains(name)), "", false));
      } else {
        if (wasRequired.contains(name) != isRequired.contains(name)) {
          boolean required = isRequired.contains(name);
          changes.add(
              new Change(
                  inner,
                  required ? "optional" : "required",
                  required ? "required" : "optional",
                  required));
        }
        compare(inner, old, now);
      }
    }
  }

  private static String words(JsonNode schema, boolean required) {
    return SchemaText.of(schema) + (required ? "" : ", optional");
  }

  /** Returns true if there may be values that only the first one allows. */
  private static boolean isNarrower(JsonNode before, JsonNode after) {
    boolean anyTypeBefore = wide(before).isEmpty() && !before.has("const") && !before.has("enum");
    if (anyTypeBefore ? !wide(after).isEmpty() : !allows(after, before)) {
      return true;
    }
    for (String keyword : NARROWING) {
      JsonNode now = after.get(keyword);
      if (now != null && !now.equals(before.get(keyword)) && !includes(keyword, before, after)) {
        return true;
      }
    }
    return LEAST.stream().anyMatch(it -> after.path(it).asInt(0) > before.path(it).asInt(0));
  }

  /** Returns true if the types of one schema are all among those of another. */
  private static boolean allows(JsonNode schema, JsonNode types) {
    Set<String> allowed = wide(schema);
    return allowed.isEmpty() || allowed.containsAll(wide(types));
  }

  /** Returns true if an enumeration has all values of the former one. */
  private static boolean includes(String keyword, JsonNode before, JsonNode after) {
    if (!keyword.equals("enum")) {
      return false;
    }
    Set<String> values = texts(after.path("enum"));
    return before.has("enum") && values.containsAll(texts(before.get("enum")))
        || before.has("const") && values.contains(before.get("const").toString());
  }

  private static Set<String> texts(JsonNode values) {
    Set<String> texts = new LinkedHashSet<>();
    values.forEach(it -> texts.add(it.toString()));
    return texts;
  }

  private static Set<String> names(JsonNode array) {
    Set<String> names = new LinkedHashSet<>();
    array.forEach(it -> names.add(it.asText()));
    return names;
  }

  /** Returns the types of a schema; a number can be an integer. */
  private static Set<String> wide(JsonNode schema) {
    Set<String> types = names(schema.path("type"));
    if (schema.path("type").isTextual()) {
      types.add(schema.path("type").asText());
    }
    if (types.contains("number")) {
      types.add("integer");
    }
    return types;
  }
}
