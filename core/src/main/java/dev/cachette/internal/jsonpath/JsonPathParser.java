// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.jsonpath;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Parses the segments and selectors of a query (RFC 9535 appendix A). */
final class JsonPathParser {

  private final Scanner in;

  JsonPathParser(String text) {
    this.in = new Scanner(text);
  }

  JsonPath parse() {
    if (!in.take("$")) {
      throw in.error(
          "a JSONPath must begin with $", "write $.member, or /member for a JSON Pointer.");
    }
    List<Segment> segments = segments(in);
    if (!in.atEnd()) {
      throw in.error(
          "unexpected content after the query",
          "remove the rest, or begin it with a dot or bracket.");
    }
    return new JsonPath(in.text(), segments);
  }

  static List<Segment> segments(Scanner in) {
    List<Segment> segments = new ArrayList<>();
    while (true) {
      int before = in.position();
      in.skipBlanks();
      if (in.take("..")) {
        segments.add(new Segment(true, in.peek() == '[' ? bracketed(in) : List.of(dotted(in))));
      } else if (in.take(".")) {
        segments.add(new Segment(false, List.of(dotted(in))));
      } else if (in.peek() == '[') {
        segments.add(new Segment(false, bracketed(in)));
      } else {
        in.moveTo(before);
        return segments;
      }
    }
  }

  private static Selector dotted(Scanner in) {
    return in.take("*") ? new Selector.Wildcard() : new Selector.Name(in.memberName());
  }

  private static List<Selector> bracketed(Scanner in) {
    in.expect("[");
    List<Selector> selectors = new ArrayList<>();
    do {
      in.skipBlanks();
      selectors.add(selector(in));
      in.skipBlanks();
    } while (in.take(","));
    in.expect("]");
    return selectors;
  }

  private static Selector selector(Scanner in) {
    char next = in.peek();
    if (next == '\'' || next == '"') {
      return new Selector.Name(in.quoted());
    }
    if (in.take("*")) {
      return new Selector.Wildcard();
    }
    if (in.take("?")) {
      in.skipBlanks();
      return new Selector.Filter(new FilterParser(in).or());
    }
    return indexOrSlice(in);
  }

  private static Selector indexOrSlice(Scanner in) {
    Optional<Long> start = in.integer();
    in.skipBlanks();
    if (!in.take(":")) {
      return new Selector.Index(
          start.orElseThrow(
              () ->
                  in.error(
                      "expected a name in quotes, a number, *, a slice or a filter",
                      "write ['name'], [0], [*], [0:2] or [?@.name == 'x'].")));
    }
    in.skipBlanks();
    Optional<Long> end = in.integer();
    in.skipBlanks();
    long step = 1;
    if (in.take(":")) {
      in.skipBlanks();
      step = in.integer().orElse(1L);
    }
    return new Selector.Slice(start, end, step);
  }
}
