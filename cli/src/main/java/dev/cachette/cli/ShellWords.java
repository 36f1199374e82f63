package dev.cachette.cli;

import java.util.ArrayList;
import java.util.List;

/** Splits a command line into words, like a POSIX shell, without expansions. */
final class ShellWords {

  private ShellWords() {}

  /**
   * Returns the words.
   *
   * @throws IllegalArgumentException if a quote is not closed
   */
  static List<String> of(String line) {
    List<String> words = new ArrayList<>();
    StringBuilder word = new StringBuilder();
    boolean inWord = false;
    char quote = 0;
    for (int at = 0; at < line.length(); at++) {
      char c = line.charAt(at);
      if (quote != 0) {
        if (c == quote) {
          quote = 0;
        } else if (c == '\\'
            && quote == '"'
            && at + 1 < line.length()
            && "\"\\$`".indexOf(line.charAt(at + 1)) >= 0) {
          word.append(line.charAt(++at));
        } else {
          word.append(c);
        }
      } else if (c == '\'' || c == '"') {
        quote = c;
        inWord = true;
      } else if (c == '\\' && at + 1 < line.length()) {
        word.append(line.charAt(++at));
        inWord = true;
      } else if (Character.isWhitespace(c)) {
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
    if (quote != 0) {
      throw new IllegalArgumentException("the quote " + quote + " is not closed");
    }
    if (inWord) {
      words.add(word.toString());
    }
    return words;
  }
}
