// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.text;

import java.util.Locale;

/** Quotes texts on one line, and makes invisible characters visible. */
public final class Quoting {

  private static final int LONGEST = 160;
  private static final int BEFORE = 40;

  private Quoting() {}

  /** Returns the text in quotes; a long one is cut at its end. */
  public static String quote(String text) {
    return quoteAround(text, 0);
  }

  /** Returns the text in quotes; a long one is cut around one position. */
  public static String quoteAround(String text, int place) {
    if (text.length() <= LONGEST) {
      return "\"" + visible(text) + "\"";
    }
    int from = Math.max(0, Math.min(place - BEFORE, text.length() - LONGEST));
    int to = Math.min(text.length(), from + LONGEST);
    return (from > 0 ? "...\"" : "\"")
        + visible(text.substring(from, to))
        + (to < text.length() ? "\"..." : "\"")
        + "  ("
        + text.length()
        + " characters)";
  }

  /** Returns the text with control characters, unusual spaces and invisible characters escaped. */
  public static String visible(String text) {
    StringBuilder out = new StringBuilder(text.length() + 8);
    for (int at = 0; at < text.length(); at++) {
      char c = text.charAt(at);
      switch (c) {
        case '\n' -> out.append("\\n");
        case '\r' -> out.append("\\r");
        case '\t' -> out.append("\\t");
        default -> {
          if (isInvisible(c)) {
            out.append(String.format(Locale.ROOT, "\\u%04x", (int) c));
          } else {
            out.append(c);
          }
        }
      }
    }
    return out.toString();
  }

  /** Returns true if a character is invisible, or looks like a plain space. */
  static boolean isInvisible(char c) {
    int type = Character.getType(c);
    return type == Character.CONTROL
        || type == Character.FORMAT
        || type == Character.LINE_SEPARATOR
        || type == Character.PARAGRAPH_SEPARATOR
        || type == Character.SPACE_SEPARATOR && c != ' ';
  }
}
