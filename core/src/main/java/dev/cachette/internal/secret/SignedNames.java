// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.secret;

/**
 * The names in a text that a sign follows, in plain text, YAML, connection strings, or arguments of
 * GraphQL: {@code name: value}, {@code "name" = value}, {@code name=>value}. Each is found from its
 * sign backwards, since most words of a text have none.
 */
final class SignedNames {

  /** Without underscores before it. */
  private static final int LONGEST = 61;

  private static final int MOST_BLANKS = 3;

  private final String text;
  private int from;
  private int sign = -1;
  private int start;
  private int nameEnd;

  SignedNames(String text) {
    this.text = text;
  }

  /** Goes to the next name; returns false if there is none. */
  boolean next() {
    for (sign++; sign < text.length(); sign++) {
      char c = text.charAt(sign);
      if ((c == ':' || c == '=') && findName()) {
        return true;
      }
    }
    return false;
  }

  String name() {
    return text.substring(start, nameEnd);
  }

  /** Returns the place where the name begins. */
  int start() {
    return start;
  }

  /** Returns the place behind the sign and the blanks that follow it. */
  int end() {
    boolean isArrow = text.startsWith("=>", sign);
    int end = sign + (isArrow ? 2 : 1);
    for (int blanks = 0; blanks < MOST_BLANKS && isBlank(end); blanks++) {
      end++;
    }
    return end;
  }

  /** Leaves out what is before this place. */
  void goOnAt(int place) {
    from = place;
    sign = place - 1;
  }

  private boolean findName() {
    int end = sign;
    for (int blanks = 0; blanks < MOST_BLANKS && end > from && isBlank(end - 1); blanks++) {
      end--;
    }
    if (end > from && (text.charAt(end - 1) == '"' || text.charAt(end - 1) == '\'')) {
      end--;
      end -= end > from && text.charAt(end - 1) == '\\' ? 1 : 0;
    }
    int first = end;
    while (first > from && isOfName(text.charAt(first - 1))) {
      first--;
    }
    start = first;
    nameEnd = end;
    return beginsName(first, end) && !follows(first);
  }

  /** Returns true for a letter, after at most two underscores, with not too much after it. */
  private boolean beginsName(int first, int end) {
    int at = first;
    while (at < end && at < first + 2 && text.charAt(at) == '_') {
      at++;
    }
    return at < end && end - at <= LONGEST && isLetter(text.charAt(at));
  }

  /** Returns true for the end of a variable, or of something encoded. */
  private boolean follows(int place) {
    char before = place == 0 ? ' ' : text.charAt(place - 1);
    return before == '$' || before == '%' || isOfName(before);
  }

  private boolean isBlank(int at) {
    return at < text.length() && (text.charAt(at) == ' ' || text.charAt(at) == '\t');
  }

  private static boolean isLetter(char c) {
    return c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z';
  }

  /** Returns true for a character of a name. */
  static boolean isOfName(char c) {
    return isLetter(c) || c >= '0' && c <= '9' || c == '_' || c == '.' || c == '-';
  }
}
