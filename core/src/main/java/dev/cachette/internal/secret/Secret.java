// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.secret;

/**
 * A secret that was found.
 *
 * @param name the name of its place, or of its shape
 * @param value its value, decoded
 * @param certainty how sure it is
 */
public record Secret(String name, String value, Certainty certainty) {

  /** Returns true for text with both digits and letters, which common words are not. */
  public static boolean isMixed(String text) {
    return text.chars().anyMatch(Character::isDigit) && text.chars().anyMatch(Character::isLetter);
  }

  /** How sure it is that a value is secret. */
  public enum Certainty {
    /** By its name, or by a shape that nothing else has. */
    CERTAIN,
    /** By a name that is often used for other values: a cookie, or a parameter called key. */
    BY_USE,
    /** By chance: it looks random, and is next to a word such as key. */
    LIKELY
  }
}
