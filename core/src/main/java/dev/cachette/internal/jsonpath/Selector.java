// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.jsonpath;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.limit.TimeLimit;
import java.util.List;
import java.util.Optional;

/** A selector of a segment (RFC 9535 section 2.3). */
public sealed interface Selector {

  /** Adds the selected children of a node. */
  void select(Located node, JsonNode root, List<Located> into);

  /** The member with this name. */
  record Name(String name) implements Selector {
    @Override
    public void select(Located node, JsonNode root, List<Located> into) {
      if (node.node().isObject() && node.node().has(name)) {
        into.add(node.member(name));
      }
    }
  }

  /** All members or elements. */
  record Wildcard() implements Selector {
    @Override
    public void select(Located node, JsonNode root, List<Located> into) {
      into.addAll(Segment.children(node));
    }
  }

  /** The element at this index; from the end if it is negative. */
  record Index(long index) implements Selector {
    @Override
    public void select(Located node, JsonNode root, List<Located> into) {
      int size = node.node().size();
      long at = index < 0 ? size + index : index;
      if (node.node().isArray() && at >= 0 && at < size) {
        into.add(node.element((int) at));
      }
    }
  }

  /** Elements from a start to an exclusive end, with a step (RFC 9535 section 2.3.4). */
  record Slice(Optional<Long> start, Optional<Long> end, long step) implements Selector {
    @Override
    public void select(Located node, JsonNode root, List<Located> into) {
      int size = node.node().size();
      if (!node.node().isArray() || step == 0) {
        return;
      }
      long first = absolute(start.orElse(step > 0 ? 0L : size - 1L), size);
      long last = absolute(end.orElse(step > 0 ? size : -size - 1L), size);
      if (step > 0) {
        long upper = Math.min(Math.max(last, 0), size);
        for (long at = Math.min(Math.max(first, 0), size); at < upper; at += step) {
          into.add(node.element((int) at));
        }
      } else {
        long lower = Math.min(Math.max(last, -1), size - 1L);
        for (long at = Math.min(Math.max(first, -1), size - 1L); at > lower; at += step) {
          into.add(node.element((int) at));
        }
      }
    }

    private static long absolute(long index, int size) {
      return index >= 0 ? index : size + index;
    }
  }

  /** The members or elements for which a filter holds. */
  record Filter(Logical condition) implements Selector {
    @Override
    public void select(Located node, JsonNode root, List<Located> into) {
      for (Located child : Segment.children(node)) {
        TimeLimit.check();
        if (condition.holds(child.node(), root)) {
          into.add(child);
        }
      }
    }
  }
}
