// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.template;

import java.util.Optional;
import java.util.function.Function;

/**
 * Replaces {@code ${name}} and {@code ${name:-default}} in a text; after one more dollar sign, they
 * stay, without that. Values and defaults are not looked into.
 */
final class Substitution {

  private static final String OPENING = "${";
  private static final String CLOSING = "}";
  private static final String OR_ELSE = ":-";

  private Substitution() {}

  /**
   * Returns the text with all values.
   *
   * @param values returns the value of a name, or nothing
   * @throws NoValue if a name has neither a value nor a default
   */
  static String in(String text, Function<String, Optional<String>> values) {
    StringBuilder filled = new StringBuilder(text.length());
    int done = 0;
    for (int at = text.indexOf(OPENING); at >= 0; at = text.indexOf(OPENING, at)) {
      int end = text.indexOf(CLOSING, at);
      if (at > 0 && text.charAt(at - 1) == '$') {
        filled.append(text, done, at - 1);
        done = at;
        at += OPENING.length();
      } else if (end < 0) {
        break;
      } else {
        filled.append(text, done, at);
        filled.append(value(text.substring(at + OPENING.length(), end), values));
        done = end + CLOSING.length();
        at = done;
      }
    }
    return filled.append(text, done, text.length()).toString();
  }

  private static String value(String expression, Function<String, Optional<String>> values) {
    int separator = expression.indexOf(OR_ELSE);
    String name = separator < 0 ? expression : expression.substring(0, separator);
    return values
        .apply(name)
        .or(
            () ->
                separator < 0
                    ? Optional.empty()
                    : Optional.of(expression.substring(separator + OR_ELSE.length())))
        .orElseThrow(() -> new NoValue(name));
  }

  /** Thrown if a name has neither a value nor a default; the message is the name. */
  static final class NoValue extends RuntimeException {

    private static final long serialVersionUID = 1;

    NoValue(String name) {
      super(name, null, false, false);
    }
  }
}
