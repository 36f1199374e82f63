// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.internal.limit.LimitedRegex;
import dev.cachette.internal.text.Quoting;
import dev.cachette.internal.text.TextDifference;
import dev.cachette.result.Cause;
import dev.cachette.result.Difference;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.UnaryOperator;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * A condition on a value as text. It is case-sensitive unless {@link #ignoringCase} is called. In
 * JSON it holds for strings only: {@code "4.2"} is not {@code 4.2}.
 */
public final class TextCondition extends ValueCondition {

  enum Kind {
    IS("is", "is "),
    CONTAINS("contains", "contains "),
    STARTS_WITH("startsWith", "starts with "),
    ENDS_WITH("endsWith", "ends with "),
    PATTERN("pattern", "matches the pattern ");

    private final String key;
    private final String words;

    Kind(String key, String words) {
      this.key = key;
      this.words = words;
    }
  }

  private final Kind kind;
  private final List<String> expected;
  private final boolean anyCase;
  private final List<Pattern> patterns;

  private TextCondition(Kind kind, List<String> expected, boolean anyCase) {
    this.kind = kind;
    this.expected = List.copyOf(expected);
    this.anyCase = anyCase;
    this.patterns = kind == Kind.PATTERN ? compiled(expected, anyCase) : List.of();
  }

  /** Returns a condition that holds for any of the given strings. */
  static TextCondition of(Kind kind, List<String> expected) {
    return new TextCondition(kind, expected, false);
  }

  /** Returns the same condition, ignoring case. */
  public TextCondition ignoringCase() {
    return new TextCondition(kind, expected, true);
  }

  @Override
  Optional<JsonNode> written() {
    JsonNode texts = StubNodes.texts(expected);
    if (kind == Kind.IS && expected.size() == 1 && !anyCase) {
      return Optional.of(texts.get(0));
    }
    ObjectNode form =
        expected.size() > 1
            ? StubNodes.member("oneOf", texts)
            : StubNodes.member(kind.key, texts.get(0));
    return Optional.of(anyCase ? form.put("ignoringCase", true) : form);
  }

  @Override
  boolean isQuick() {
    return patterns.isEmpty();
  }

  @Override
  boolean holds(Found found) {
    for (JsonNode item : found.items()) {
      if (item.isTextual() && holds(item.textValue())) {
        return true;
      }
    }
    return false;
  }

  private boolean holds(String actual) {
    for (Pattern pattern : patterns) {
      if (LimitedRegex.matches(pattern, actual)) {
        return true;
      }
    }
    String folded = fold(actual);
    for (String text : expected) {
      if (kind != Kind.PATTERN && holds(folded, fold(text))) {
        return true;
      }
    }
    return false;
  }

  private boolean holds(String actual, String text) {
    return switch (kind) {
      case IS -> actual.equals(text);
      case CONTAINS -> actual.contains(text);
      case STARTS_WITH -> actual.startsWith(text);
      case ENDS_WITH -> actual.endsWith(text);
      case PATTERN -> throw new IllegalStateException("patterns are compiled");
    };
  }

  private String fold(String text) {
    return anyCase ? text.toLowerCase(Locale.ROOT) : text;
  }

  @Override
  String describe(UnaryOperator<String> mask) {
    String texts =
        expected.stream()
            .map(text -> Quoting.quote(mask.apply(text)))
            .collect(Collectors.joining(", "));
    String words =
        kind != Kind.IS ? kind.words + texts : expected.size() > 1 ? "one of " + texts : texts;
    return anyCase ? words + ", ignoring case" : words;
  }

  @Override
  Optional<Remark> remark(JsonNode item, boolean typed) {
    return item.isTextual()
        ? Optional.empty()
        : Remark.of(
            item,
            "a string",
            item.isNumber() ? Difference.Kind.NUMBER_FOR_STRING : Difference.Kind.TYPE);
  }

  @Override
  Optional<Cause> cause(Found found) {
    if (found.items().size() != 1 || !found.items().get(0).isTextual()) {
      return Optional.empty();
    }
    String actual = found.items().get(0).textValue();
    if (!found.mask().apply(actual).equals(actual)) {
      return maskedCause(found.mask(), actual);
    }
    if (kind == Kind.PATTERN) {
      return patterns.stream().anyMatch(pattern -> LimitedRegex.find(pattern, actual))
          ? Optional.of(
              Cause.certain("the pattern matches only a part; it must match the whole value"))
          : Optional.empty();
    }
    if (kind != Kind.IS) {
      return fold(actual).toLowerCase(Locale.ROOT).equals(actual) || anyCase
          ? Optional.empty()
          : Optional.of(Cause.certain("differs in letter case only"))
              .filter(x -> ignoringCase().holds(found));
    }
    return expected.stream()
        .flatMap(text -> TextDifference.cause(text, actual).stream())
        .findFirst();
  }

  private Optional<Cause> maskedCause(UnaryOperator<String> mask, String actual) {
    boolean scheme = kind == Kind.IS && expected.stream().anyMatch(it -> actual.endsWith(" " + it));
    if (scheme) {
      return Optional.of(
          Cause.certain(
              "the scheme, " + actual.split(" ", 2)[0] + ", is part of the value of this header"));
    }
    return expected.stream()
        .filter(text -> mask.apply(text).equals(mask.apply(actual)))
        .findFirst()
        .map(
            text ->
                Cause.certain(
                    "differs in the part that is masked here"
                        + (text.length() == actual.length()
                            ? ""
                            : ": " + text.length() + " characters, not " + actual.length())));
  }

  private static List<Pattern> compiled(List<String> patterns, boolean anyCase) {
    int flags = anyCase ? Pattern.CASE_INSENSITIVE | Pattern.UNICODE_CASE : 0;
    return patterns.stream().map(pattern -> Pattern.compile(pattern, flags)).toList();
  }
}
