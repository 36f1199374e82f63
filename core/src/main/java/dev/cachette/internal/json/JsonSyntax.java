// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.json;

/**
 * Recognises ordinary JSON (RFC 8259) without a parser of Jackson, whose classes a new JVM needs a
 * twentieth of a second for. What is not recognised may be JSON all the same: a parser decides, and
 * says what is wrong.
 */
public final class JsonSyntax {

  /** Much less than Jackson accepts. */
  private static final int MOST_LEVELS = 100;

  private static final int MOST_CHARACTERS = 20_000;

  private static final int MOST_DIGITS = 100;

  private final String text;
  private int at;

  private JsonSyntax(String text) {
    this.text = text;
  }

  /** Returns true if a text is ordinary JSON. */
  public static boolean recognises(String text) {
    JsonSyntax json = new JsonSyntax(text);
    return text.length() <= MOST_CHARACTERS && json.value(0) && json.at == text.length();
  }

  /** Skips a value with the white space around it; false if there is none. */
  private boolean value(int level) {
    skipSpace();
    boolean found =
        switch (peek()) {
          case '{' -> level < MOST_LEVELS && object(level + 1);
          case '[' -> level < MOST_LEVELS && array(level + 1);
          case '"' -> string();
          case 't' -> word("true");
          case 'f' -> word("false");
          case 'n' -> word("null");
          default -> number();
        };
    skipSpace();
    return found;
  }

  private boolean object(int level) {
    at++;
    skipSpace();
    if (take('}')) {
      return true;
    }
    do {
      skipSpace();
      if (!string()) {
        return false;
      }
      skipSpace();
      if (!take(':') || !value(level)) {
        return false;
      }
    } while (take(','));
    return take('}');
  }

  private boolean array(int level) {
    at++;
    skipSpace();
    if (take(']')) {
      return true;
    }
    do {
      if (!value(level)) {
        return false;
      }
    } while (take(','));
    return take(']');
  }

  private boolean string() {
    if (!take('"')) {
      return false;
    }
    while (at < text.length()) {
      char c = text.charAt(at++);
      if (c == '"') {
        return true;
      }
      if (c < ' ' || c == '\\' && !escape()) {
        return false;
      }
    }
    return false;
  }

  private boolean escape() {
    char c = peek();
    at++;
    if (c != 'u') {
      return c != 0 && "\"\\/bfnrt".indexOf(c) >= 0;
    }
    for (int digit = 0; digit < 4; digit++) {
      if (Character.digit(peek(), 16) < 0 || peek() > 'f') {
        return false;
      }
      at++;
    }
    return true;
  }

  private boolean word(String word) {
    boolean there = text.startsWith(word, at);
    at += there ? word.length() : 0;
    return there;
  }

  private boolean number() {
    int start = at;
    take('-');
    if (!take('0') && !digits()) {
      return false;
    }
    if (take('.') && !digits()) {
      return false;
    }
    if (take('e') || take('E')) {
      if (!take('+')) {
        take('-');
      }
      if (!digits()) {
        return false;
      }
    }
    return at - start <= MOST_DIGITS;
  }

  private boolean digits() {
    int start = at;
    while (peek() >= '0' && peek() <= '9') {
      at++;
    }
    return at > start;
  }

  private void skipSpace() {
    while (peek() == ' ' || peek() == '\n' || peek() == '\r' || peek() == '\t') {
      at++;
    }
  }

  private boolean take(char c) {
    boolean there = peek() == c;
    at += there ? 1 : 0;
    return there;
  }

  /** Returns the next character; NUL, which JSON has nowhere, at the end. */
  private char peek() {
    return at < text.length() ? text.charAt(at) : 0;
  }
}
