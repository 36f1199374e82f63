// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;

/** The parts of a schema, whether they are in it or in those that it combines. */
final class SchemaParts {

  private static final int DEEPEST = 8;
  private static final List<String> ALTERNATIVES = List.of("anyOf", "oneOf");

  private SchemaParts() {}

  /** Returns the names that each value has: those of all parts, and of each alternative. */
  static Set<String> required(Element schema) {
    return required(schema, 0);
  }

  private static Set<String> required(Element schema, int depth) {
    Element there = schema.followed();
    Set<String> names = new LinkedHashSet<>();
    there.json().path("required").forEach(it -> names.add(it.asText()));
    if (depth < DEEPEST) {
      there.raw("allOf").elements().forEach(it -> names.addAll(required(it, depth + 1)));
      for (String keyword : ALTERNATIVES) {
        List<Set<String>> each = new ArrayList<>();
        there.raw(keyword).elements().forEach(it -> each.add(required(it, depth + 1)));
        if (!each.isEmpty()) {
          Set<String> common = new LinkedHashSet<>(each.get(0));
          each.forEach(common::retainAll);
          names.addAll(common);
        }
      }
    }
    return names;
  }

  /** Returns the schema of the elements of an array; missing if there is none. */
  static Element items(Element schema) {
    return items(schema, 0);
  }

  private static Element items(Element schema, int depth) {
    Element there = schema.followed();
    Element found = there.raw("items");
    if (found.isThere() || depth >= DEEPEST) {
      return found;
    }
    for (String keyword : List.of("allOf", "anyOf", "oneOf")) {
      for (Element each : there.raw(keyword).elements()) {
        Element inner = items(each, depth + 1);
        if (inner.isThere()) {
          return inner;
        }
      }
    }
    return found;
  }

  /** Returns the names of the members that are described. */
  static Set<String> members(Element schema) {
    return members(schema, 0);
  }

  private static Set<String> members(Element schema, int depth) {
    Element there = schema.followed();
    Set<String> names = new LinkedHashSet<>();
    there.raw("properties").json().fieldNames().forEachRemaining(names::add);
    if (depth < DEEPEST) {
      for (String keyword : List.of("allOf", "anyOf", "oneOf")) {
        there.raw(keyword).elements().forEach(it -> names.addAll(members(it, depth + 1)));
      }
    }
    return names;
  }
}
