// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

/**
 * How long the strings of a pattern can get, at most about: a few nested repetitions stand for more
 * than memory holds. Syntax that it does not know counts as characters.
 */
final class PatternLength {

  private final String pattern;

  /** The number of repetitions that a star stands for. */
  private final int star;

  private int at;

  private PatternLength(String pattern, int star) {
    this.pattern = pattern;
    this.star = star;
  }

  static double longest(String pattern, int star) {
    PatternLength length = new PatternLength(pattern, star);
    double longest = 0;
    while (length.at < pattern.length()) {
      longest += length.alternatives();
      // A parenthesis that nothing has opened.
      length.at++;
    }
    return longest;
  }

  /** Reads to the end of a group. */
  private double alternatives() {
    double longest = 0;
    double now = 0;
    while (at < pattern.length() && pattern.charAt(at) != ')') {
      if (pattern.charAt(at) == '|') {
        at++;
        longest = Math.max(longest, now);
        now = 0;
      } else {
        now += atom() * repetitions();
      }
    }
    return Math.max(longest, now);
  }

  private double atom() {
    char first = pattern.charAt(at++);
    if (first == '(') {
      double group = alternatives();
      at++;
      return group;
    }
    if (first == '\\') {
      at++;
    } else if (first == '[') {
      skipClass();
    }
    return 1;
  }

  private void skipClass() {
    int open = 1;
    while (at < pattern.length() && open > 0) {
      char c = pattern.charAt(at++);
      open += c == '[' ? 1 : c == ']' ? -1 : 0;
      at += c == '\\' ? 1 : 0;
    }
  }

  /** Several quantifiers in a row multiply. */
  private double repetitions() {
    double all = 1;
    while (at < pattern.length() && "*+?{".indexOf(pattern.charAt(at)) >= 0) {
      char quantifier = pattern.charAt(at++);
      if (quantifier == '{') {
        all *= bound();
      } else if (quantifier != '?') {
        all *= star;
      }
    }
    return all;
  }

  /** Reads the rest of <code>{n}</code>, <code>{n,}</code> or <code>{n,m}</code>. */
  private double bound() {
    int end = pattern.indexOf('}', at);
    String[] bounds = pattern.substring(at, end < 0 ? at : end).split(",", -1);
    at = end < 0 ? at : end + 1;
    try {
      String last = bounds[bounds.length - 1].strip();
      return last.isEmpty() ? Double.parseDouble(bounds[0]) + star : Double.parseDouble(last);
    } catch (NumberFormatException noBounds) {
      return 1;
    }
  }
}
