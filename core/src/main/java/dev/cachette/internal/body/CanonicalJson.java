// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.body;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.TextNode;
import dev.cachette.internal.json.JsonQuery;
import dev.cachette.internal.jsonpath.Located;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;

/**
 * Canonical JSON text: equal values have equal texts, with sorted members and normalised numbers.
 */
final class CanonicalJson {

  private final Set<String> ignored = new HashSet<>();
  private final StringBuilder text = new StringBuilder();

  private CanonicalJson(JsonNode root, List<String> paths) {
    for (String path : paths) {
      JsonQuery.parse(path).find(root).forEach(found -> ignored.add(found.path()));
    }
  }

  /** Returns the text, without the values at the ignored paths. */
  static String of(JsonNode root, List<String> ignoredPaths) {
    CanonicalJson canonical = new CanonicalJson(root, ignoredPaths);
    canonical.append(Located.root(root));
    return canonical.text.toString();
  }

  private void append(Located place) {
    JsonNode node = place.node();
    if (ignored.contains(place.path())) {
      text.append("_");
    } else if (node.isObject()) {
      appendObject(place);
    } else if (node.isArray()) {
      text.append('[');
      for (int at = 0; at < node.size(); at++) {
        append(place.element(at));
        text.append(',');
      }
      text.append(']');
    } else if (node.isNumber()) {
      text.append(number(node));
    } else {
      text.append(node);
    }
  }

  private void appendObject(Located place) {
    text.append('{');
    Set<String> names = new TreeSet<>();
    place.node().fieldNames().forEachRemaining(names::add);
    for (String name : names) {
      Located member = place.member(name);
      if (!ignored.contains(member.path())) {
        text.append(TextNode.valueOf(name)).append(':');
        append(member);
        text.append(',');
      }
    }
    text.append('}');
  }

  private static String number(JsonNode node) {
    return node.decimalValue().signum() == 0
        ? "0"
        : node.decimalValue().stripTrailingZeros().toString();
  }
}
