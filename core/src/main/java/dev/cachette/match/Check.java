package dev.cachette.match;

import java.util.Optional;

/**
 * How one condition of a pattern fared with one request.
 *
 * @param condition the name of the condition: {@code method}, {@code path}, {@code query day}
 * @param holds whether the request fulfils it
 * @param nearness how near the request came, from 0 (nothing in common) to 1 (it holds)
 * @param expected what the pattern asks for
 * @param actual what the request has
 * @param cause the likely cause, where one can be named: {@code the same path but for a slash at
 *     its end}; empty where the condition holds
 */
public record Check(
    String condition,
    boolean holds,
    double nearness,
    String expected,
    String actual,
    Optional<String> cause) {

  /** What {@link #actual} says where the request lacks the thing altogether. */
  public static final String MISSING = "missing";

  /** A condition that the request fulfils. */
  public static Check held(String condition, String expected, String actual) {
    return new Check(condition, true, 1, expected, actual, Optional.empty());
  }

  /** A condition that the request does not fulfil. */
  public static Check missed(
      String condition, double nearness, String expected, String actual, Optional<String> cause) {
    return new Check(condition, false, nearness, expected, actual, cause);
  }

  /**
   * The check as lines of an explanation: {@code ok} and what holds, or {@code NO} with expected,
   * actual and cause below each other.
   *
   * @param width how many columns the name of the condition takes
   */
  public String lines(int width) {
    String name = condition + " ".repeat(Math.max(0, width - condition.length()));
    if (holds) {
      return "  ok   " + name + "   " + expected + "\n";
    }
    String indent = "\n" + " ".repeat(name.length() + 10);
    return "  NO   "
        + name
        + "   expected  "
        + expected
        + indent
        + "actual    "
        + actual
        + cause.map(likely -> indent + "cause     " + likely).orElse("")
        + "\n";
  }
}
