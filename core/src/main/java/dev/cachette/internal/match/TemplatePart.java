// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.match;

import java.util.List;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * A piece of a path template: literal text in normal form, or a variable.
 *
 * @param kind its kind
 * @param text the literal text, or the name of the variable
 */
record TemplatePart(Kind kind, String text) {

  enum Kind {
    /** Matches anything, including slashes and nothing. */
    REST,
    /** Matches one segment, or a part of one; not empty. */
    VARIABLE,
    LITERAL
  }

  boolean isVariable() {
    return kind != Kind.LITERAL;
  }

  /** Returns a key that parts share if they match the same; braces cannot occur in a path. */
  String form() {
    return switch (kind) {
      case LITERAL -> text;
      case VARIABLE -> "{}";
      case REST -> "{+}";
    };
  }

  /** Returns a regular expression with a group for each variable. */
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
