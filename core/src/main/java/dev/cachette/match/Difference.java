package dev.cachette.match;

import java.util.Optional;

/**
 * One difference between a request and a condition.
 *
 * @param at the place in what the condition examines: {@code $.vessel.draught}, {@code line 3};
 *     empty for the whole of it
 * @param expected what the condition requires
 * @param actual what the request has, {@link #MISSING} if it has nothing there
 * @param cause the likely cause, if one is known
 */
public record Difference(String at, String expected, String actual, Optional<String> cause) {

  /** The value of {@link #actual} if the request has nothing there. */
  public static final String MISSING = "missing";

  /** Returns a difference of the whole, without a likely cause. */
  public static Difference of(String expected, String actual) {
    return new Difference("", expected, actual, Optional.empty());
  }

  /** Returns this difference with a likely cause. */
  public Difference because(Optional<String> likely) {
    return new Difference(at, expected, actual, likely);
  }

  /** Returns this difference with a place. */
  public Difference at(String place) {
    return new Difference(place, expected, actual, cause);
  }

  /** Returns true if the request has nothing there. */
  public boolean isMissing() {
    return actual.equals(MISSING);
  }

  /** Appends place, expected, actual and cause on lines of their own. */
  String lines(String indent) {
    return (at.isEmpty() ? "" : "at " + at + "\n" + indent)
        + "expected  "
        + expected
        + "\n"
        + indent
        + "actual    "
        + actual
        + cause.map(likely -> "\n" + indent + "cause     " + likely).orElse("");
  }
}
