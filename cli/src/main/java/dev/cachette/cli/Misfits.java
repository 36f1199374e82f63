package dev.cachette.cli;

import dev.cachette.match.Check;
import dev.cachette.match.Difference;
import java.util.List;
import java.util.stream.Stream;

/** What does not fit a description, as lines of findings. */
final class Misfits {

  private Misfits() {}

  /**
   * One text for each thing; none for those that are not known before the file is used: templates
   * and what was redacted.
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
            "%s: %s%s: expected %s, actual %s%s.",
            opening,
            check.condition(),
            place,
            difference.expected().replace("   (", " ("),
            actual,
            difference.cause().map(why -> "; " + why).orElse("")));
  }
}
