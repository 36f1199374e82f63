package dev.cachette.match;

import java.util.Optional;

/**
 * One thing in which a request is not as a condition asks.
 *
 * @param at where in what the condition looks at: {@code $.vessel.draught}, {@code line 3}; empty
 *     if that is the whole of it
 * @param expected what the condition asks for
 * @param actual what the request has, {@link #MISSING} if it lacks the thing altogether
 * @param cause the likely cause, where one can be named
 */
public record Difference(String at, String expected, String actual, Optional<String> cause) {

  /** What {@link #actual} says where the request lacks the thing altogether. */
  public static final String MISSING = "missing";

  /** A difference of the whole, with no cause that could be named. */
  public static Difference of(String expected, String actual) {
    return new Difference("", expected, actual, Optional.empty());
  }

  /** This difference with a likely cause. */
  public Difference because(Optional<String> likely) {
    return new Difference(at, expected, actual, likely);
  }

  /** This difference at a place. */
  public Difference at(String place) {
    return new Difference(place, expected, actual, cause);
  }

  /** Whether the request lacks the thing altogether. */
  public boolean isMissing() {
    return actual.equals(MISSING);
  }

  /** Place, expected, actual and cause below each other. */
  public String lines(String indent) {
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
