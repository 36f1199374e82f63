// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.curl;

import java.util.ArrayList;
import java.util.List;

/** Splits a command into words like a POSIX shell, with {@code $'...'} and without expansions. */
final class ShellWords {

  /** Escapes in {@code $'...'} with one character, and what they are. */
  private static final String ESCAPES = "abefnrtv";

  private static final String ESCAPED = "\u0007\b\u001b\f\n\r\t\u000b";
  private static final int HEXADECIMAL = 16;
  private static final int OCTAL = 8;

  private final String line;
  private final List<String> words = new ArrayList<>();
  private final StringBuilder word = new StringBuilder();
  private boolean inWord;
  private int at;

  private ShellWords(String line) {
    this.line = line;
  }

  /** Thrown if a command goes on after its last line. */
  static final class Unfinished extends IllegalArgumentException {

    private static final long serialVersionUID = 1;

    Unfinished(String message) {
      super(message);
    }
  }

  /**
   * Returns the words.
   *
   * @throws Unfinished if a quote is not closed, or if a backslash is the last character
   */
  static List<String> of(String line) {
    ShellWords words = new ShellWords(line);
    words.read();
    return words.words;
  }

  private void read() {
    while (at < line.length()) {
      char c = line.charAt(at++);
      if (c == '\'') {
        quoted();
      } else if (c == '"') {
        doubleQuoted();
      } else if (c == '$' && at < line.length() && line.charAt(at) == '\'') {
        at++;
        escaped();
      } else if (c == '\\') {
        char next = next('\\');
        if (next != '\n') {
          add(next);
        }
      } else if (Character.isWhitespace(c)) {
        endWord();
      } else {
        add(c);
      }
    }
    endWord();
  }

  private char next(char of) {
    if (at == line.length()) {
      throw new Unfinished(
          of == '\\' ? "it ends with a backslash" : "the quote " + of + " is not closed");
    }
    return line.charAt(at++);
  }

  private void add(char c) {
    word.append(c);
    inWord = true;
  }

  private void endWord() {
    if (inWord) {
      words.add(word.toString());
      word.setLength(0);
      inWord = false;
    }
  }

  private void quoted() {
    inWord = true;
    for (char c = next('\''); c != '\''; c = next('\'')) {
      word.append(c);
    }
  }

  private void doubleQuoted() {
    inWord = true;
    for (char c = next('"'); c != '"'; c = next('"')) {
      if (c != '\\') {
        word.append(c);
        continue;
      }
      char escaped = next('"');
      if (escaped == '\n') {
        continue;
      }
      if ("\"\\$`".indexOf(escaped) < 0) {
        word.append('\\');
      }
      word.append(escaped);
    }
  }

  private void escaped() {
    inWord = true;
    for (char c = next('\''); c != '\''; c = next('\'')) {
      if (c == '\\') {
        escape(next('\''));
      } else {
        word.append(c);
      }
    }
  }

  private void escape(char c) {
    int simple = ESCAPES.indexOf(c);
    if (simple >= 0) {
      word.append(ESCAPED.charAt(simple));
    } else if (c == 'x') {
      number(HEXADECIMAL, 2);
    } else if (c == 'u') {
      number(HEXADECIMAL, 4);
    } else if (c == 'U') {
      number(HEXADECIMAL, 8);
    } else if (Character.digit(c, OCTAL) >= 0) {
      at--;
      number(OCTAL, 3);
    } else {
      word.append(c);
    }
  }

  private void number(int radix, int digits) {
    int value = 0;
    int from = at;
    while (at < line.length()
        && at < from + digits
        && Character.digit(line.charAt(at), radix) >= 0) {
      value = value * radix + Character.digit(line.charAt(at++), radix);
    }
    if (!Character.isValidCodePoint(value)) {
      throw new IllegalArgumentException("there is no character \\U" + line.substring(from, at));
    }
    word.appendCodePoint(value);
  }
}
