// SPDX-License-Identifier: Apache-2.0
package dev.cachette.tooling;

import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.util.List;
import java.util.stream.Stream;

/** Violations of an API description, as findings. */
final class Misfits {

  private Misfits() {}

  /**
   * One text per violation; none for values that are unknown until the file is used: templates and
   * redacted ones.
   */
  static List<String> of(String opening, List<Check> missed) {
    return missed.stream()
        .flatMap(check -> check.differences().stream().flatMap(it -> text(opening, check, it)))
        .toList();
  }

  private static Stream<String> text(String opening, Check check, Difference difference) {
    String actual = difference.actual();
    if (actual.contains("${") || actual.contains("{{")) {
      return Stream.empty();
    }
    String place = difference.at().isEmpty() ? "" : " at " + difference.at();
    return Stream.of(
        String.format(
            "%s: %s%s: expected %s, actual %s.%s",
            opening,
            check.condition(),
            place,
            difference.expected().replace("   (", " ("),
            actual,
            difference.cause().map(why -> " " + sentence(why.toString())).orElse("")));
  }

  private static String sentence(String cause) {
    String begun = Character.toUpperCase(cause.charAt(0)) + cause.substring(1);
    return begun.endsWith("?") ? begun : begun + ".";
  }
}
