// SPDX-License-Identifier: Apache-2.0
package dev.cachette.verification;

import dev.cachette.internal.finding.CheckText;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import dev.cachette.verification.ClauseResult.Outcome;
import java.util.List;

/** Renders the result of a clause for people. */
final class ClauseText {

  private static final int SHOWN = 5;
  private static final String HEADER = "header ";

  private ClauseText() {}

  /** Returns the explanation. */
  static String of(ClauseResult result) {
    StringBuilder text = new StringBuilder();
    text.append(
        String.format(
            "%s %s \"%s\", which %s needs.%n%n  %s%n",
            result.provider(),
            switch (result.outcome()) {
              case MET -> "meets";
              case NOT_MET -> "does not meet";
              case NOT_CHECKED -> "was not checked against";
            },
            result.clause(),
            consumer(result),
            result.request()));
    result.given().forEach(state -> text.append("  given ").append(state).append(newLine()));
    if (!result.neededBy().isEmpty()) {
      text.append("  needed by ").append(tests(result.neededBy())).append(newLine());
    }
    text.append(newLine());
    if (result.outcome() == Outcome.NOT_CHECKED) {
      return text.append(result.problem().indent(2).stripTrailing()).append(newLine()).toString();
    }
    text.append(CheckText.lines(result.checks()).replace("\n", newLine()));
    if (result.outcome() == Outcome.NOT_MET) {
      text.append(newLine()).append("Fix: ").append(fix(result)).append(newLine());
    }
    return text.toString();
  }

  /** Returns the consumer, with its version if it is known. */
  private static String consumer(ClauseResult result) {
    return result.consumer()
        + (result.consumerVersion().isEmpty() ? "" : "@" + result.consumerVersion());
  }

  private static String tests(List<String> tests) {
    int more = tests.size() - SHOWN;
    return String.join(", ", tests.subList(0, Math.min(SHOWN, tests.size())))
        + (more > 0 ? " and " + more + " more" : "");
  }

  private static String fix(ClauseResult result) {
    Check first = result.checks().stream().filter(it -> !it.holds()).findFirst().orElseThrow();
    Difference difference = first.differences().get(0);
    boolean isPlace = difference.at().length() > 1;
    boolean isHeader = first.condition().startsWith(HEADER);
    String place = isPlace ? difference.at() : "the " + first.condition();
    if (!isPlace && !isHeader) {
      return String.format(
          "correct %s in %s, or the stub in %s.", place, result.provider(), result.consumer());
    }
    String loosened = isPlace ? place : first.condition().substring(HEADER.length());
    String method = difference.isMissing() ? "optional" : loosening(difference);
    return method.isEmpty()
        ? String.format(
            "correct %s in %s, or the stub if %s accepts this.",
            place, result.provider(), result.consumer())
        : String.format(
            "correct %s in %s; or, if %s works without it, clause(stub).%s(\"%s\").",
            place,
            result.provider(),
            result.consumer(),
            method,
            loosened.replaceAll("\\[\\d+\\]", "[*]"));
  }

  private static String loosening(Difference difference) {
    return difference.actual().equals("null") ? "nullable" : "";
  }

  private static String newLine() {
    return System.lineSeparator();
  }
}
