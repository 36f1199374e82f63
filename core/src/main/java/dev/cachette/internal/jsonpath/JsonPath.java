// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.jsonpath;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.List;

/**
 * A JSONPath query, RFC 9535.
 *
 * @param text the query as written
 * @param segments its segments, applied one after the other from the root
 */
public record JsonPath(String text, List<Segment> segments) {

  /** Copies the list. */
  public JsonPath {
    segments = List.copyOf(segments);
  }

  /**
   * Parses a query.
   *
   * @throws IllegalArgumentException if it is malformed; the message marks the place
   */
  public static JsonPath parse(String text) {
    return new JsonPathParser(text).parse();
  }

  /** Returns the selected nodes, in the order that the RFC defines, if it does. */
  public List<Located> find(JsonNode root) {
    return Segment.apply(segments, Located.root(root), root);
  }

  /**
   * Returns the names and numbers that lead to the only possible node; empty if there can be
   * several.
   */
  public List<String> steps() {
    return segments.stream().allMatch(Segment::isSingular)
        ? segments.stream().map(segment -> segment.selectors().get(0)).map(JsonPath::step).toList()
        : List.of();
  }

  private static String step(Selector selector) {
    return selector instanceof Selector.Name name
        ? name.name()
        : Long.toString(((Selector.Index) selector).index());
  }

  @Override
  public String toString() {
    return text;
  }
}
