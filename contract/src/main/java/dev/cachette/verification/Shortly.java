// SPDX-License-Identifier: Apache-2.0
package dev.cachette.verification;

import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import dev.cachette.verification.ClauseResult.Outcome;

/** Says in one line why a clause is not met. */
final class Shortly {

  private Shortly() {}

  /** Returns the first difference: {@code $.draught: expected a number, actual "4.2"}. */
  static String of(ClauseResult result) {
    if (result.outcome() == Outcome.NOT_CHECKED) {
      return result.problem().lines().findFirst().orElse("not checked");
    }
    for (Check check : result.checks()) {
      if (!check.holds()) {
        Difference first = check.differences().get(0);
        String place = first.at().isEmpty() ? check.condition() : first.at();
        return String.format("%s: expected %s, actual %s", place, first.expected(), first.actual());
      }
    }
    return "met";
  }
}
