package dev.cachette.internal.match;

import dev.cachette.internal.match.TemplatePart.Kind;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/** A path template seen segment by segment, to rank it and to say how much of a path fits. */
final class PathSegments {

  private static final int REST = 0;
  private static final int VARIABLE = 1;
  private static final int PARTLY_LITERAL = 2;
  private static final int LITERAL = 3;

  private PathSegments() {}

  static List<Integer> ranks(List<TemplatePart> parts) {
    return split(parts).stream().map(PathSegments::rank).toList();
  }

  static List<String> literalPrefix(List<TemplatePart> parts) {
    return split(parts).stream()
        .takeWhile(segment -> rank(segment) == LITERAL)
        .map(segment -> segment.stream().map(TemplatePart::text).collect(Collectors.joining()))
        .toList();
  }

  /** Whether no variable is only a part of a segment, and {@code {+rest}} comes last if at all. */
  static boolean areWhole(List<TemplatePart> parts) {
    List<List<TemplatePart>> segments = split(parts);
    for (int at = 0; at < segments.size(); at++) {
      int rank = rank(segments.get(at));
      boolean last = at == segments.size() - 1 && segments.get(at).size() == 1;
      if (rank == PARTLY_LITERAL || rank == REST && !last) {
        return false;
      }
    }
    return true;
  }

  /** How many segments of the path fit in their place, in proportion to the longer of the two. */
  static double shareThatFits(List<TemplatePart> parts, String path) {
    List<List<TemplatePart>> expected = split(parts);
    String[] actual = path.split("/", -1);
    int fitting = 0;
    // The first segment, before the leading slash, is empty in every path and says nothing.
    for (int at = 1; at < Math.min(expected.size(), actual.length); at++) {
      if (rank(expected.get(at)) == REST) {
        return (double) at / expected.size();
      }
      fitting += fits(expected.get(at), actual[at]) ? 1 : 0;
    }
    int longer = Math.max(expected.size(), actual.length) - 1;
    return longer == 0 ? 0 : (double) fitting / longer;
  }

  private static boolean fits(List<TemplatePart> segment, String actual) {
    String regex = segment.stream().map(TemplatePart::toRegex).collect(Collectors.joining());
    return Pattern.matches(regex, actual);
  }

  private static int rank(List<TemplatePart> segment) {
    if (segment.stream().noneMatch(TemplatePart::isVariable)) {
      return LITERAL;
    }
    if (segment.stream().anyMatch(part -> part.kind() == Kind.REST)) {
      return REST;
    }
    return segment.size() > 1 ? PARTLY_LITERAL : VARIABLE;
  }

  private static List<List<TemplatePart>> split(List<TemplatePart> parts) {
    List<List<TemplatePart>> segments = new ArrayList<>();
    segments.add(new ArrayList<>());
    for (TemplatePart part : parts) {
      String[] pieces = part.isVariable() ? new String[0] : part.text().split("/", -1);
      for (int at = 0; at < pieces.length; at++) {
        if (at > 0) {
          segments.add(new ArrayList<>());
        }
        if (!pieces[at].isEmpty()) {
          last(segments).add(new TemplatePart(Kind.LITERAL, pieces[at]));
        }
      }
      if (part.isVariable()) {
        last(segments).add(part);
      }
    }
    return segments;
  }

  private static List<TemplatePart> last(List<List<TemplatePart>> segments) {
    return segments.get(segments.size() - 1);
  }
}
