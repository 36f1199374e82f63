// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.finding;

import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.util.List;
import java.util.stream.Collectors;

/** Renders checks and differences for people. */
public final class CheckText {

  private static final int SHOWN = 3;

  private CheckText() {}

  /**
   * Returns the condition that does not hold and its first place: {@code body at $.vessel.draught}.
   */
  public static String name(Check check) {
    String condition = check.condition();
    String place = check.differences().isEmpty() ? "" : check.differences().get(0).at();
    if (place.isEmpty()) {
      return condition;
    }
    // Of combined conditions, name the one that does not hold.
    return condition.contains(place) ? place : condition + " at " + place;
  }

  /** Returns checks as lines of an explanation, with their names in one column. */
  public static String lines(List<Check> checks) {
    int width = checks.stream().mapToInt(check -> check.condition().length()).max().orElse(0);
    return checks.stream().map(check -> lines(check, width)).collect(Collectors.joining());
  }

  /**
   * Returns the check as lines of an explanation: {@code ok} and the requirement, or {@code NO}
   * with expected, actual and cause on lines of their own.
   */
  public static String lines(Check check) {
    return lines(check, check.condition().length());
  }

  private static String lines(Check check, int width) {
    String name = check.condition() + " ".repeat(Math.max(0, width - check.condition().length()));
    return check.holds()
        ? "  ok   " + name + "   " + check.expected() + "\n"
        : "  NO   " + name + "   " + differences(check, " ".repeat(name.length() + 10)) + "\n";
  }

  /** Returns the first differences, and the number of the others. */
  private static String differences(Check check, String indent) {
    String shown =
        check.differences().stream()
            .limit(SHOWN)
            .map(difference -> lines(difference, indent))
            .collect(Collectors.joining("\n" + indent));
    int more = check.differences().size() - SHOWN;
    return more <= 0
        ? shown
        : shown
            + "\n"
            + indent
            + "and "
            + more
            + (more == 1 ? " difference" : " differences")
            + " more";
  }

  /** Returns place, expected, actual and cause on lines of their own. */
  public static String lines(Difference difference, String indent) {
    return (difference.at().isEmpty() ? "" : "at " + difference.at() + "\n" + indent)
        + "expected  "
        + difference.expected()
        + "\n"
        + indent
        + "actual    "
        + difference.actual()
        + difference.cause().map(cause -> "\n" + indent + "cause     " + cause).orElse("");
  }
}
