// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.curl;

import java.util.ArrayList;
import java.util.List;

/**
 * Splits a command of the Windows command prompt into words: carets escape outside of double
 * quotes, and programs read {@code \"} as a double quote.
 */
final class PromptWords {

  private PromptWords() {}

  /** Returns true if a command is written for the command prompt. */
  static boolean isOne(String command) {
    return command.contains("^\"")
        || command.lines().findFirst().orElse("").stripTrailing().endsWith("^");
  }

  /**
   * Returns the words.
   *
   * @throws ShellWords.Unfinished if a quote is not closed, or if a caret is the last character
   */
  static List<String> of(String command) {
    return words(withoutCarets(command));
  }

  private static String withoutCarets(String command) {
    StringBuilder plain = new StringBuilder();
    boolean quoted = false;
    for (int at = 0; at < command.length(); at++) {
      char c = command.charAt(at);
      if (c != '^' || quoted) {
        quoted ^= c == '"';
        plain.append(c);
        continue;
      }
      at++;
      if (at == command.length()) {
        throw new ShellWords.Unfinished("it ends with a caret");
      }
      if (command.charAt(at) != '\n') {
        plain.append(command.charAt(at));
      } else if (at + 1 < command.length() && command.charAt(at + 1) == '\n') {
        // A caret and two line breaks are one line break.
        plain.append('\n');
        at++;
      }
    }
    return plain.toString();
  }

  private static List<String> words(String plain) {
    List<String> words = new ArrayList<>();
    StringBuilder word = new StringBuilder();
    boolean quoted = false;
    boolean inWord = false;
    for (int at = 0; at < plain.length(); at++) {
      char c = plain.charAt(at);
      if (c == '\\' && at + 1 < plain.length() && "\"\\".indexOf(plain.charAt(at + 1)) >= 0) {
        word.append(plain.charAt(++at));
        inWord = true;
      } else if (c == '"') {
        quoted = !quoted;
        inWord = true;
      } else if (Character.isWhitespace(c) && !quoted) {
        if (inWord) {
          words.add(word.toString());
          word.setLength(0);
          inWord = false;
        }
      } else {
        word.append(c);
        inWord = true;
      }
    }
    if (quoted) {
      throw new ShellWords.Unfinished("the quote \" is not closed");
    }
    if (inWord) {
      words.add(word.toString());
    }
    return words;
  }
}
