// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.match;

import dev.cachette.internal.limit.LimitedRegex;
import dev.cachette.internal.secret.Masking;
import dev.cachette.internal.text.NameSuggester;
import dev.cachette.internal.uri.Percent;
import dev.cachette.result.Cause;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * A path with variables. It is compared with the path as sent, in normal form, so that an escaped
 * slash is never taken for a real one; the values of variables are decoded afterwards.
 */
final class PathTemplate {

  /** A path with a known cause for its mismatch ranks above all others. */
  private static final double ALMOST = 0.96;

  /** Variables as other notations write them. */
  private static final Pattern FOREIGN = Pattern.compile("\\*\\*|\\*|/:[A-Za-z_][A-Za-z0-9_]*");

  private final String text;
  private final List<TemplatePart> parts;
  private final PathSegments segments;

  /** Compiled on demand: most paths need no expression, and there may be thousands. */
  private final @Nullable Pattern pattern;

  PathTemplate(String text, List<TemplatePart> parts) {
    this.text = text;
    this.parts = List.copyOf(parts);
    this.segments = new PathSegments(parts);
    boolean simple = parts.get(0).kind() == TemplatePart.Kind.LITERAL && segments.areWhole();
    this.pattern = simple ? null : Pattern.compile(TemplatePart.regex(parts), Pattern.DOTALL);
  }

  /** Returns true if it has no variables. */
  boolean isLiteral() {
    return parts.size() == 1 && !parts.get(0).isVariable();
  }

  /** Returns true if the time that matching takes is in proportion to the path. */
  boolean isQuick() {
    return pattern == null;
  }

  /** Returns how many segments are alike, in percent; see {@link RequestLine#likeness}. */
  int likeness(List<String> actual) {
    return segments.likeness(actual);
  }

  /** Returns the path in normal form, if it has no variables. */
  String literal() {
    return parts.get(0).text();
  }

  /**
   * Returns the leading segments without a variable, in normal form; the first, before the slash,
   * is empty.
   */
  List<String> literalPrefix() {
    return segments.literalPrefix();
  }

  /** Returns the variables with their values, if the normalised path matches. */
  Optional<Map<String, String>> match(String path) {
    return pattern == null ? walk(path) : fit(pattern, path);
  }

  /**
   * If every variable is a whole segment, or the rest, the path can be matched without an
   * expression.
   */
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
    Matcher matcher = LimitedRegex.matcher(pattern, path);
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
    Optional<Cause> same = cause(normal).map(Cause::certain);
    Optional<Cause> cause = same.or(() -> otherSegments(normal));
    double nearness = same.isPresent() ? ALMOST : nearness(normal);
    return Check.missed("path", nearness, Difference.of(text, Masking.url(path)).with(cause));
  }

  /**
   * Returns a key that templates share if they match the same paths, whatever their variables are
   * called.
   */
  String form() {
    return parts.stream().map(TemplatePart::form).collect(Collectors.joining());
  }

  /** Returns one rank per segment, from the left: greater is more specific. */
  List<Integer> ranks() {
    return segments.ranks();
  }

  private Optional<String> cause(String path) {
    if (match(path + "/").isPresent()) {
      return Optional.of("the same path, but called without the trailing slash");
    }
    if (path.endsWith("/") && match(path.substring(0, path.length() - 1)).isPresent()) {
      return Optional.of("the same path, but called with a trailing slash");
    }
    String single = path.replaceAll("/{2,}", "/");
    if (!single.equals(path) && match(single).isPresent()) {
      return Optional.of("the same path, but called with a double slash");
    }
    if (path.contains("%25") && match(Percent.normalise(Percent.decode(path))).isPresent()) {
      return Optional.of("the same path, but encoded twice by the caller");
    }
    if (path.contains("%") && match(Percent.decode(path)).isPresent()) {
      return Optional.of("the same path, but called with escaped characters that are plain here");
    }
    if (text.contains("%") && Percent.decode(text).equals(path)) {
      return Optional.of("the same path, but called with plain characters that are escaped here");
    }
    if (foreignVariables(path)) {
      return Optional.of(
          "* and :name are literal in a request line; a variable is {name}, a rest {+name}");
    }
    if (matchesInAnyCase(path)) {
      return Optional.of("the same path in different letter case");
    }
    return Optional.empty();
  }

  /** Returns true if it would match, had it its variables as other notations write them. */
  private boolean foreignVariables(String path) {
    if (text.indexOf('*') < 0 && !text.contains("/:")) {
      return false;
    }
    StringBuilder regex = new StringBuilder();
    Matcher foreign = FOREIGN.matcher(text);
    int from = 0;
    while (foreign.find()) {
      regex.append(Pattern.quote(text.substring(from, foreign.start())));
      regex.append(
          foreign.group().equals("**") ? ".*" : foreign.group().equals("*") ? "[^/]*" : "/[^/]+");
      from = foreign.end();
    }
    regex.append(Pattern.quote(text.substring(from)));
    return LimitedRegex.matches(Pattern.compile(regex.toString(), Pattern.DOTALL), path);
  }

  /** Returns a cause if the number of segments differs, or one segment that is similar. */
  private Optional<Cause> otherSegments(String path) {
    String[] wanted = text.split("/", -1);
    String[] actual = path.split("/", -1);
    int more = actual.length - wanted.length;
    if (more != 0) {
      boolean countable = parts.stream().noneMatch(part -> part.kind() == TemplatePart.Kind.REST);
      return Optional.of(
              Cause.certain(
                  Math.abs(more)
                      + (Math.abs(more) == 1 ? " segment " : " segments ")
                      + (more > 0 ? "more" : "less")
                      + " than in the request line"))
          .filter(it -> countable);
    }
    int other = -1;
    for (int at = 0; at < wanted.length; at++) {
      boolean same = wanted[at].equals(actual[at]) || wanted[at].indexOf('{') >= 0;
      if (!same && other >= 0) {
        return Optional.empty();
      }
      other = same ? other : at;
    }
    if (other < 0 || NameSuggester.closest(wanted[other], List.of(actual[other])).isEmpty()) {
      return Optional.empty();
    }
    return Optional.of(
        Cause.likely(
            String.format("a misspelled segment, \"%s\" or \"%s\"", actual[other], wanted[other])));
  }

  private boolean matchesInAnyCase(String path) {
    int flags = Pattern.DOTALL | Pattern.CASE_INSENSITIVE;
    return LimitedRegex.matches(Pattern.compile(TemplatePart.regex(parts), flags), path);
  }

  /** Returns the proportion of segments that match, plus a little for similarity. */
  private double nearness(String path) {
    return 0.9 * segments.shareThatFits(path) + 0.05 * NameSuggester.of(text, path);
  }
}
