// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.body;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.json.JsonQuery;
import dev.cachette.internal.jsonpath.Located;
import dev.cachette.internal.text.Quoting;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Changes from one JSON value to another. The elements of an array are compared as if they were
 * one, so that a longer list is not a change of shape.
 */
final class JsonChanges {

  private final Set<String> ignored = new HashSet<>();

  /** By kind and place: one change is enough for all elements of an array. */
  private final Map<String, BodyChange> changes = new LinkedHashMap<>();

  private JsonChanges() {}

  /** Returns the changes, except at the ignored paths. */
  static List<BodyChange> of(JsonNode before, JsonNode after, List<String> ignoredPaths) {
    JsonChanges found = new JsonChanges();
    for (String path : ignoredPaths) {
      JsonQuery query = JsonQuery.parse(path);
      query.find(before).forEach(located -> found.ignored.add(located.path()));
      query.find(after).forEach(located -> found.ignored.add(located.path()));
    }
    found.compare(Located.root(before), Located.root(after), "$");
    return List.copyOf(found.changes.values());
  }

  private void compare(Located before, Located after, String place) {
    JsonNode old = before.node();
    JsonNode now = after.node();
    if (ignored.contains(before.path()) || ignored.contains(after.path())) {
      return;
    }
    if (!type(old).equals(type(now))) {
      add(BodyChange.Kind.TYPE, place, type(old), type(now), Ignored.NOTHING);
    } else if (old.isObject()) {
      compareMembers(before, after, place);
    } else if (old.isArray()) {
      compareElements(before, after, place);
    } else if (!isSame(old, now)) {
      add(BodyChange.Kind.VALUE, place, shown(old), shown(now), Ignored.json(place));
    }
  }

  private static boolean isSame(JsonNode old, JsonNode now) {
    return old.isNumber() ? old.decimalValue().compareTo(now.decimalValue()) == 0 : old.equals(now);
  }

  private void add(
      BodyChange.Kind kind, String place, String before, String after, Ignored ignoring) {
    add(new BodyChange(kind, place, before, after, ignoring));
  }

  private void add(BodyChange change) {
    changes.putIfAbsent(change.kind() + " " + change.place(), change);
  }

  private void compareMembers(Located before, Located after, String place) {
    Set<String> names = new LinkedHashSet<>();
    before.node().fieldNames().forEachRemaining(names::add);
    after.node().fieldNames().forEachRemaining(names::add);
    for (String name : names) {
      Located old = before.member(name);
      Located now = after.member(name);
      String member = place + old.path().substring(before.path().length());
      if (ignored.contains(old.path()) || ignored.contains(now.path())) {
        continue;
      }
      if (now.node().isMissingNode()) {
        add(BodyChange.gone(member, type(old.node())));
      } else if (old.node().isMissingNode()) {
        add(BodyChange.fresh(member, type(now.node())));
      } else {
        compare(old, now, member);
      }
    }
  }

  private void compareElements(Located before, Located after, String place) {
    int old = before.node().size();
    int now = after.node().size();
    if (old != now) {
      add(BodyChange.Kind.SIZE, place, old + " elements", now + " elements", Ignored.NOTHING);
    }
    for (int at = 0; at < Math.min(1, old) * now; at++) {
      compare(before.element(Math.min(at, old - 1)), after.element(at), place + "[*]");
    }
  }

  private static String type(JsonNode node) {
    return switch (node.getNodeType()) {
      case STRING -> "string";
      case NUMBER -> "number";
      case BOOLEAN -> "boolean";
      case NULL -> "null";
      case ARRAY -> "array";
      default -> "object";
    };
  }

  private static String shown(JsonNode node) {
    return node.isTextual() ? Quoting.quote(node.asText()) : node.toString();
  }
}
