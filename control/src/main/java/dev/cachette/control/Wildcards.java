// SPDX-License-Identifier: Apache-2.0
package dev.cachette.control;

import java.util.List;
import java.util.Locale;

/**
 * A text in which {@code *} stands for any text, in upper or lower case. Its parts are searched one
 * after the other, which takes no longer with many of them: a regular expression could.
 */
record Wildcards(List<String> parts) {

  /**
   * Reads it.
   *
   * @throws IllegalArgumentException if it is empty
   */
  static Wildcards of(String text) {
    if (text.isEmpty()) {
      throw new IllegalArgumentException("no value");
    }
    return new Wildcards(List.of(text.toLowerCase(Locale.ROOT).split("\\*", -1)));
  }

  /** Returns true if it stands for the whole text. */
  boolean isWhole(String text) {
    String lower = text.toLowerCase(Locale.ROOT);
    String first = parts.get(0);
    String last = parts.get(parts.size() - 1);
    if (parts.size() == 1) {
      return lower.equals(first);
    }
    int from = first.length();
    int to = lower.length() - last.length();
    return from <= to
        && lower.startsWith(first)
        && lower.endsWith(last)
        && isIn(lower.substring(from, to), parts.subList(1, parts.size() - 1));
  }

  /** Returns true if it stands for a part of the text. */
  boolean isIn(String text) {
    return isIn(text.toLowerCase(Locale.ROOT), parts);
  }

  private static boolean isIn(String lower, List<String> parts) {
    int from = 0;
    for (String part : parts) {
      int at = lower.indexOf(part, from);
      if (at < 0) {
        return false;
      }
      from = at + part.length();
    }
    return true;
  }
}
