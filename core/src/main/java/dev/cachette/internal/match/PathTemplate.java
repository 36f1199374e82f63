package dev.cachette.internal.match;

import dev.cachette.internal.text.Likeness;
import dev.cachette.internal.uri.Percent;
import dev.cachette.match.Check;
import dev.cachette.match.Difference;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * A path with variables in it. It is held against the path as sent, in normal form, so that an
 * escaped slash never passes for a real one; the values of variables are decoded afterwards.
 */
final class PathTemplate {

  /** Of a path for which it is known what is wrong, it comes nearer than any other. */
  private static final double ALMOST = 0.96;

  private final String text;
  private final List<TemplatePart> parts;
  private final PathSegments segments;

  /** Compiled only where it is asked: most paths can be walked, and there may be thousands. */
  private final @Nullable Pattern pattern;

  PathTemplate(String text, List<TemplatePart> parts) {
    this.text = text;
    this.parts = List.copyOf(parts);
    this.segments = new PathSegments(parts);
    boolean simple = parts.get(0).kind() == TemplatePart.Kind.LITERAL && segments.areWhole();
    this.pattern = simple ? null : Pattern.compile(TemplatePart.regex(parts), Pattern.DOTALL);
  }

  /** Whether there is no variable in it. */
  boolean isLiteral() {
    return parts.size() == 1 && !parts.get(0).isVariable();
  }

  /** The path in normal form, if there is no variable in it. */
  String literal() {
    return parts.get(0).text();
  }

  /**
   * The leading segments without a variable, in normal form; the first, before the slash, is empty.
   */
  List<String> literalPrefix() {
    return segments.literalPrefix();
  }

  /** The variables with their values, if the path, in normal form, fits. */
  Optional<Map<String, String>> match(String path) {
    return pattern == null ? walk(path) : fit(pattern, path);
  }

  /** Every variable is a whole segment, or all that is left: no need to try where one ends. */
  private Optional<Map<String, String>> walk(String path) {
    Map<String, String> variables = parts.size() == 1 ? Map.of() : new LinkedHashMap<>();
    int at = 0;
    for (TemplatePart part : parts) {
      if (!part.isVariable()) {
        if (!path.startsWith(part.text(), at)) {
          return Optional.empty();
        }
        at += part.text().length();
        continue;
      }
      int slash = part.kind() == TemplatePart.Kind.REST ? -1 : path.indexOf('/', at);
      int end = slash < 0 ? path.length() : slash;
      if (end == at && part.kind() != TemplatePart.Kind.REST) {
        return Optional.empty();
      }
      variables.put(part.text(), Percent.decode(path.substring(at, end)));
      at = end;
    }
    return at == path.length() ? Optional.of(variables) : Optional.empty();
  }

  private Optional<Map<String, String>> fit(Pattern pattern, String path) {
    Matcher matcher = pattern.matcher(path);
    if (!matcher.matches()) {
      return Optional.empty();
    }
    Map<String, String> variables = new LinkedHashMap<>();
    int group = 1;
    for (TemplatePart part : parts) {
      if (part.isVariable()) {
        variables.put(part.text(), Percent.decode(matcher.group(group++)));
      }
    }
    return Optional.of(variables);
  }

  Check examine(String path) {
    String normal = Percent.normalise(path);
    if (match(normal).isPresent()) {
      return Check.held("path", text);
    }
    Optional<String> cause = cause(normal);
    double nearness = cause.isPresent() ? ALMOST : nearness(normal);
    return Check.missed("path", nearness, Difference.of(text, path).because(cause));
  }

  /** What two templates share that the same paths fit: the names of variables decide nothing. */
  String form() {
    return parts.stream().map(TemplatePart::form).collect(Collectors.joining());
  }

  /** One rank a segment, from the left: the greater, the narrower. */
  List<Integer> ranks() {
    return segments.ranks();
  }

  private Optional<String> cause(String path) {
    if (match(path + "/").isPresent()) {
      return Optional.of("the same path, but called without the slash at its end");
    }
    if (path.endsWith("/") && match(path.substring(0, path.length() - 1)).isPresent()) {
      return Optional.of("the same path, but called with a slash at its end");
    }
    String single = path.replaceAll("/{2,}", "/");
    if (!single.equals(path) && match(single).isPresent()) {
      return Optional.of("the same path, but called with a doubled slash");
    }
    if (path.contains("%25") && match(Percent.normalise(Percent.decode(path))).isPresent()) {
      return Optional.of("the same path, but encoded twice by the caller");
    }
    if (path.contains("%") && match(Percent.decode(path)).isPresent()) {
      return Optional.of("the same path, but called with characters escaped that are plain here");
    }
    if (text.contains("%") && Percent.decode(text).equals(path)) {
      return Optional.of("the same path, but called with characters plain that are escaped here");
    }
    if (matchesInAnyCase(path)) {
      return Optional.of("the same path, but in other letter case");
    }
    return Optional.empty();
  }

  private boolean matchesInAnyCase(String path) {
    return Pattern.compile(TemplatePart.regex(parts), Pattern.DOTALL | Pattern.CASE_INSENSITIVE)
        .matcher(path)
        .matches();
  }

  /** The share of segments that fit in their place, and a little for mere likeness. */
  private double nearness(String path) {
    return 0.9 * segments.shareThatFits(path) + 0.05 * Likeness.of(text, path);
  }
}
