package dev.cachette.internal.match;

import java.util.regex.Pattern;

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

  String toRegex() {
    return switch (kind) {
      case LITERAL -> Pattern.quote(text);
      case VARIABLE -> "([^/]+)";
      case REST -> "(.*)";
    };
  }
}
