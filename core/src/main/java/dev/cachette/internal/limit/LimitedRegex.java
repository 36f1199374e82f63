// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.limit;

import java.util.function.Predicate;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Applies regular expressions of users to texts of callers, under the limit of the thread. */
public final class LimitedRegex {

  private LimitedRegex() {}

  /**
   * Returns true if the whole text matches.
   *
   * @throws TimeLimitExceeded if it takes too long
   * @throws IllegalStateException if it needs too much stack
   */
  public static boolean matches(Pattern pattern, String text) {
    return apply(pattern, text, Matcher::matches);
  }

  /** As {@link #matches}, for any part of the text. */
  public static boolean find(Pattern pattern, String text) {
    return apply(pattern, text, Matcher::find);
  }

  /** Returns a matcher of the text. */
  public static Matcher matcher(Pattern pattern, String text) {
    return pattern.matcher(TimeLimit.checking(text));
  }

  private static boolean apply(Pattern pattern, String text, Predicate<Matcher> how) {
    try {
      return how.test(matcher(pattern, text));
    } catch (StackOverflowError tooDeep) {
      throw new IllegalStateException(
          String.format(
              "the regular expression \"%s\" needs too much stack for a text of %,d characters."
                  + " Fix: make its repeated groups possessive, as in (...)*+",
              pattern, text.length()));
    }
  }
}
