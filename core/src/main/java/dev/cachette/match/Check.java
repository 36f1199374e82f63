package dev.cachette.match;

import java.util.List;
import java.util.stream.Collectors;

/**
 * The result of testing one condition against one request.
 *
 * @param condition the name of the condition: {@code method}, {@code path}, {@code query day}
 * @param holds whether the request meets it
 * @param nearness how close the request came, from 0 (nothing in common) to 1 (it holds)
 * @param expected what the condition requires, in a few words
 * @param differences what differs, the most significant first; empty if the condition holds
 */
public record Check(
    String condition,
    boolean holds,
    double nearness,
    String expected,
    List<Difference> differences) {

  private static final int SHOWN = 3;

  /** Copies the list. */
  public Check {
    differences = List.copyOf(differences);
  }

  /** Returns the check of a condition that holds. */
  public static Check held(String condition, String expected) {
    return new Check(condition, true, 1, expected, List.of());
  }

  /** Returns the check of a condition that does not hold. */
  public static Check missed(String condition, double nearness, Difference difference) {
    return missed(condition, nearness, difference.expected(), List.of(difference));
  }

  /** Returns the check of a condition that does not hold, for several reasons; at least one. */
  public static Check missed(
      String condition, double nearness, String expected, List<Difference> differences) {
    return new Check(condition, false, nearness, expected, differences);
  }

  /** Returns the differences, each placed below the name of the condition. */
  List<Difference> placed() {
    return differences.stream()
        .map(each -> each.at(each.at().isEmpty() ? condition : condition + " at " + each.at()))
        .toList();
  }

  /**
   * Returns the condition that does not hold and its first place: {@code body at $.vessel.draught}.
   */
  String name() {
    String place = differences.isEmpty() ? "" : differences.get(0).at();
    if (place.isEmpty()) {
      return condition;
    }
    // Of combined conditions, name the one that does not hold.
    return condition.contains(place) ? place : condition + " at " + place;
  }

  /**
   * Returns the check as lines of an explanation: {@code ok} and the requirement, or {@code NO}
   * with expected, actual and cause on lines of their own.
   *
   * @param width the number of columns for the name of the condition
   */
  String lines(int width) {
    String name = condition + " ".repeat(Math.max(0, width - condition.length()));
    return holds
        ? "  ok   " + name + "   " + expected + "\n"
        : "  NO   " + name + "   " + differenceLines(" ".repeat(name.length() + 10)) + "\n";
  }

  /**
   * Appends place, expected, actual and cause of the first differences, and the number of the
   * others.
   */
  private String differenceLines(String indent) {
    String shown =
        differences.stream()
            .limit(SHOWN)
            .map(difference -> difference.lines(indent))
            .collect(Collectors.joining("\n" + indent));
    int more = differences.size() - SHOWN;
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
}
