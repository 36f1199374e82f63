package dev.cachette.match;

import java.util.List;
import java.util.stream.Collectors;

/**
 * How one condition fared with one request.
 *
 * @param condition the name of the condition: {@code method}, {@code path}, {@code query day}
 * @param holds whether the request fulfils it
 * @param nearness how near the request came, from 0 (nothing in common) to 1 (it holds)
 * @param expected what the condition asks for, in a few words
 * @param differences what is otherwise, the most telling first; empty where the condition holds
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

  /** A condition that the request fulfils. */
  public static Check held(String condition, String expected) {
    return new Check(condition, true, 1, expected, List.of());
  }

  /** A condition that the request does not fulfil. */
  public static Check missed(String condition, double nearness, Difference difference) {
    return missed(condition, nearness, difference.expected(), List.of(difference));
  }

  /** A condition that the request does not fulfil, for several reasons; at least one. */
  public static Check missed(
      String condition, double nearness, String expected, List<Difference> differences) {
    return new Check(condition, false, nearness, expected, differences);
  }

  /** The differences, each with the name of the condition as its place. */
  List<Difference> placed() {
    return differences.stream()
        .map(each -> each.at(each.at().isEmpty() ? condition : condition + " at " + each.at()))
        .toList();
  }

  /** What does not hold, and where first: {@code body at $.vessel.draught}. */
  public String name() {
    String place = differences.isEmpty() ? "" : differences.get(0).at();
    if (place.isEmpty()) {
      return condition;
    }
    // Of several conditions combined, the one that does not hold.
    return condition.contains(place) ? place : condition + " at " + place;
  }

  /**
   * The check as lines of an explanation: {@code ok} and what holds, or {@code NO} with expected,
   * actual and cause below each other.
   *
   * @param width how many columns the name of the condition takes
   */
  public String lines(int width) {
    String name = condition + " ".repeat(Math.max(0, width - condition.length()));
    return holds
        ? "  ok   " + name + "   " + expected + "\n"
        : "  NO   " + name + "   " + differenceLines(" ".repeat(name.length() + 10)) + "\n";
  }

  /** Place, expected, actual and cause of the first differences, and how many more there are. */
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
