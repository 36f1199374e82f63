// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.finding;

import dev.cachette.internal.text.Quoting;
import dev.cachette.internal.text.TextDifference;
import dev.cachette.result.Cause;
import dev.cachette.result.Difference;
import java.util.Optional;
import java.util.function.UnaryOperator;

/** The difference between two texts, cut around their first difference, with secrets masked. */
public final class TextFinding {

  private TextFinding() {}

  /** Returns the difference at a place. */
  public static Difference of(
      String at, String expected, String actual, UnaryOperator<String> mask) {
    String want = mask.apply(expected);
    String have = mask.apply(actual);
    boolean masked = !want.equals(expected) || !have.equals(actual);
    int place = TextDifference.place(want, have);
    Optional<Cause> cause =
        masked && want.equals(have)
            ? Optional.of(Cause.certain("differs in a part that is masked here"))
            : TextDifference.cause(expected, actual);
    return new Difference(
        at, Quoting.quoteAround(want, place), Quoting.quoteAround(have, place), cause);
  }
}
