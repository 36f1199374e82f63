// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.secret;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/**
 * Looks for marks in a text, in upper or lower case: short parts that tell which expressions are
 * worth a search. Most marks are ruled out by one of their characters.
 */
final class MarkedText {

  private final String text;
  private final Characters characters;
  private @Nullable String lowerCase;

  MarkedText(String text) {
    this.text = text;
    this.characters = Characters.of(text);
  }

  /**
   * A part of a text.
   *
   * @param text in lower case
   * @param characters those in it
   */
  record Mark(String text, Characters characters) {}

  static List<Mark> marks(String... texts) {
    return Arrays.stream(texts).map(text -> new Mark(text, Characters.of(text))).toList();
  }

  boolean has(Mark mark) {
    return characters.includes(mark.characters)
        && (mark.text.length() == 1 || lowerCase().contains(mark.text));
  }

  String text() {
    return text;
  }

  /** Returns this, or another text. */
  MarkedText with(String now) {
    return now.equals(text) ? this : new MarkedText(now);
  }

  String lowerCase() {
    if (lowerCase == null) {
      lowerCase = text.toLowerCase(Locale.ROOT);
    }
    return lowerCase;
  }

  /**
   * Which characters of ASCII are in a text, in lower case.
   *
   * @param low a bit for each of the first 64
   * @param high a bit for each of the others
   */
  private record Characters(long low, long high) {

    static Characters of(String text) {
      long low = 0;
      long high = 0;
      for (int at = 0; at < text.length(); at++) {
        char c = text.charAt(at);
        if (c < Long.SIZE) {
          low |= 1L << c;
        } else if (c < 2 * Long.SIZE) {
          high |= 1L << (c >= 'A' && c <= 'Z' ? c + ('a' - 'A') : c);
        }
      }
      return new Characters(low, high);
    }

    boolean includes(Characters others) {
      return (others.low & ~low) == 0 && (others.high & ~high) == 0;
    }
  }
}
