// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.jsonpath;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.limit.TimeLimit;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;

/**
 * One segment of a query (RFC 9535 section 2.5).
 *
 * @param descendant whether it applies to the node and all its descendants
 * @param selectors its selectors
 */
public record Segment(boolean descendant, List<Selector> selectors) {

  /** Copies the list. */
  public Segment {
    selectors = List.copyOf(selectors);
  }

  static List<Located> apply(List<Segment> segments, Located start, JsonNode root) {
    List<Located> nodes = List.of(start);
    for (Segment segment : segments) {
      List<Located> next = new ArrayList<>();
      nodes.forEach(node -> segment.collect(node, root, next));
      nodes = next;
    }
    return nodes;
  }

  boolean isSingular() {
    return !descendant
        && selectors.size() == 1
        && (selectors.get(0) instanceof Selector.Name
            || selectors.get(0) instanceof Selector.Index);
  }

  private void collect(Located node, JsonNode root, List<Located> into) {
    TimeLimit.check();
    selectors.forEach(selector -> selector.select(node, root, into));
    if (descendant) {
      children(node).forEach(child -> collect(child, root, into));
    }
  }

  /** Returns the children of a node, in document order. */
  static List<Located> children(Located parent) {
    List<Located> children = new ArrayList<>(parent.node().size());
    if (parent.node().isArray()) {
      for (int at = 0; at < parent.node().size(); at++) {
        children.add(parent.element(at));
      }
    } else if (parent.node().isObject()) {
      for (Iterator<String> names = parent.node().fieldNames(); names.hasNext(); ) {
        children.add(parent.member(names.next()));
      }
    }
    return children;
  }
}
