package dev.cachette.internal.match;

import java.util.List;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * A piece of a path template: literal text in normal form, or a variable.
 *
 * @param kind what it is
 * @param text the literal text, or the name of the variable
 */
record TemplatePart(Kind kind, String text) {

  enum Kind {
    /** Anything, slashes included, and also nothing. */
    REST,
    /** One segment, or a part of one; not empty. */
    VARIABLE,
    LITERAL
  }

  boolean isVariable() {
    return kind != Kind.LITERAL;
  }

  /** What it shares with those that fit where it does; no path has a brace in it. */
  String form() {
    return switch (kind) {
      case LITERAL -> text;
      case VARIABLE -> "{}";
      case REST -> "{+}";
    };
  }

  /** A regular expression with a group for each variable. */
  static String regex(List<TemplatePart> parts) {
    return parts.stream().map(TemplatePart::toRegex).collect(Collectors.joining());
  }

  private String toRegex() {
    return switch (kind) {
      case LITERAL -> Pattern.quote(text);
      case VARIABLE -> "([^/]+)";
      case REST -> "(.*)";
    };
  }
}
