// SPDX-License-Identifier: Apache-2.0
package dev.cachette.result;

/**
 * Why something differs.
 *
 * @param text the cause, in a few words
 * @param isCertain whether it is a fact; otherwise it is only likely
 */
public record Cause(String text, boolean isCertain) {

  /** Returns a cause that is a fact. */
  public static Cause certain(String text) {
    return new Cause(text, true);
  }

  /** Returns a cause that is only likely. */
  public static Cause likely(String text) {
    return new Cause(text, false);
  }

  /** Returns the text; a likely cause says so. */
  @Override
  public String toString() {
    return isCertain ? text : "likely: " + text;
  }
}
