// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.match;

import dev.cachette.internal.limit.LimitedRegex;
import dev.cachette.internal.match.TemplatePart.Kind;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.regex.Pattern;

/** The segments of a path template, to rank it and to measure how much of a path matches. */
final class PathSegments {

  private static final int REST = 0;
  private static final int VARIABLE = 1;
  private static final int PARTLY_LITERAL = 2;
  private static final int LITERAL = 3;

  private final List<List<TemplatePart>> segments;
  private final List<Integer> ranks;

  PathSegments(List<TemplatePart> parts) {
    this.segments = split(parts);
    List<Integer> all = new ArrayList<>(segments.size());
    for (List<TemplatePart> segment : segments) {
      all.add(rank(segment));
    }
    this.ranks = Collections.unmodifiableList(all);
  }

  /** Returns one rank per segment, from the left: greater is more specific. */
  List<Integer> ranks() {
    return ranks;
  }

  /** Returns the leading segments without a variable. */
  List<String> literalPrefix() {
    List<String> prefix = new ArrayList<>(segments.size());
    for (int at = 0; at < segments.size() && ranks.get(at) == LITERAL; at++) {
      List<TemplatePart> segment = segments.get(at);
      prefix.add(segment.isEmpty() ? "" : segment.get(0).text());
    }
    return prefix;
  }

  /**
   * Returns true if no variable is only a part of a segment, and {@code {+rest}} can only be last.
   */
  boolean areWhole() {
    for (int at = 0; at < segments.size(); at++) {
      int rank = ranks.get(at);
      boolean last = at == segments.size() - 1 && segments.get(at).size() == 1;
      if (rank == PARTLY_LITERAL || rank == REST && !last) {
        return false;
      }
    }
    return true;
  }

  /** Returns the proportion of path segments that match in their position. */
  double shareThatFits(String path) {
    String[] actual = path.split("/", -1);
    int fitting = 0;
    // The first segment, before the leading slash, is empty in every path.
    for (int at = 1; at < Math.min(segments.size(), actual.length); at++) {
      if (ranks.get(at) == REST) {
        return (double) at / segments.size();
      }
      fitting += fits(segments.get(at), actual[at]) ? 1 : 0;
    }
    int longer = Math.max(segments.size(), actual.length) - 1;
    return longer == 0 ? 0 : (double) fitting / longer;
  }

  /** Returns how many segments are alike, in percent; cheap, and therefore only roughly. */
  int likeness(List<String> actual) {
    int halves = 0;
    for (int at = 1; at < Math.min(segments.size(), actual.size()); at++) {
      int rank = ranks.get(at);
      if (rank == REST) {
        return 100 * at / segments.size();
      }
      List<TemplatePart> segment = segments.get(at);
      String literal = segment.isEmpty() ? "" : segment.get(0).text();
      boolean same = rank != LITERAL || literal.equals(actual.get(at));
      halves += same ? 2 : mayBeMisspelled(literal, actual.get(at)) ? 1 : 0;
    }
    int longer = Math.max(segments.size(), actual.size()) - 1;
    return longer == 0 ? 100 : 50 * halves / longer;
  }

  private static boolean mayBeMisspelled(String literal, String actual) {
    int shorter = Math.min(literal.length(), actual.length());
    return shorter > 1
        && literal.charAt(0) == actual.charAt(0)
        && literal.charAt(1) == actual.charAt(1)
        && Math.abs(literal.length() - actual.length()) <= 2;
  }

  private static boolean fits(List<TemplatePart> segment, String actual) {
    return segment.size() == 1 && !segment.get(0).isVariable()
        ? segment.get(0).text().equals(actual)
        : LimitedRegex.matches(Pattern.compile(TemplatePart.regex(segment)), actual);
  }

  private static int rank(List<TemplatePart> segment) {
    boolean variable = false;
    for (TemplatePart part : segment) {
      if (part.kind() == Kind.REST) {
        return REST;
      }
      variable |= part.isVariable();
    }
    if (!variable) {
      return LITERAL;
    }
    return segment.size() > 1 ? PARTLY_LITERAL : VARIABLE;
  }

  private static List<List<TemplatePart>> split(List<TemplatePart> parts) {
    List<List<TemplatePart>> segments = new ArrayList<>();
    List<TemplatePart> last = new ArrayList<>(1);
    segments.add(last);
    for (TemplatePart part : parts) {
      if (part.isVariable()) {
        last.add(part);
        continue;
      }
      String text = part.text();
      for (int at = 0; at <= text.length(); ) {
        int slash = text.indexOf('/', at);
        int end = slash < 0 ? text.length() : slash;
        if (end > at) {
          last.add(new TemplatePart(Kind.LITERAL, text.substring(at, end)));
        }
        if (slash >= 0) {
          last = new ArrayList<>(1);
          segments.add(last);
        }
        at = end + 1;
      }
    }
    return segments;
  }
}
