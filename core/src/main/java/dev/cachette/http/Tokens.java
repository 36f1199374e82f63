// SPDX-License-Identifier: Apache-2.0
package dev.cachette.http;

import dev.cachette.internal.misuse.Refusals;

/** The token of RFC 9110 section 5.6.2, for methods and header names. */
final class Tokens {

  private static final String MARKS = "!#$%&'*+-.^_`|~";

  private Tokens() {}

  static String requireToken(String what, String text) {
    if (text == null) {
      throw Refusals.argument(what + " must not be null.");
    }
    if (text.isEmpty()) {
      throw Refusals.argument(what + " must not be empty.");
    }
    for (int at = 0; at < text.length(); at++) {
      if (!isTokenCharacter(text.charAt(at))) {
        throw Refusals.argument(
            String.format(
                "%s consists of letters, digits and %s only; \"%s\" has another character at"
                    + " position %d.",
                what, MARKS, text, at + 1));
      }
    }
    return text;
  }

  private static boolean isTokenCharacter(char c) {
    return c < 0x80 && (Character.isLetterOrDigit(c) || MARKS.indexOf(c) >= 0);
  }
}
