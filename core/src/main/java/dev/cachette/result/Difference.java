// SPDX-License-Identifier: Apache-2.0
package dev.cachette.result;

import java.util.Optional;

/**
 * One difference between a request and a condition.
 *
 * @param at the place in what the condition examines: {@code $.vessel.draught}, {@code line 3};
 *     empty for the whole of it
 * @param expected what the condition requires
 * @param actual what the request has, {@link #MISSING} if it has nothing there
 * @param kind how they differ
 * @param cause the cause, if one is known
 */
public record Difference(
    String at, String expected, String actual, Kind kind, Optional<Cause> cause) {

  /** The value of {@link #actual} if the request has nothing there. */
  public static final String MISSING = "missing";

  /** How the expected and the actual value differ. */
  public enum Kind {
    /** They have the same type, or none. */
    VALUE,
    /** The request has nothing there. */
    MISSING,
    /** A string where a number is required. */
    STRING_FOR_NUMBER,
    /** A number where a string is required. */
    NUMBER_FOR_STRING,
    /** Another type than the required one. */
    TYPE
  }

  /** Creates a difference of values. */
  public Difference(String at, String expected, String actual, Optional<Cause> cause) {
    this(at, expected, actual, actual.equals(MISSING) ? Kind.MISSING : Kind.VALUE, cause);
  }

  /** Returns a difference of the whole, without a cause. */
  public static Difference of(String expected, String actual) {
    return new Difference("", expected, actual, Optional.empty());
  }

  /** Returns this difference with a cause that is a fact. */
  public Difference because(Optional<String> fact) {
    return new Difference(at, expected, actual, kind, fact.map(Cause::certain));
  }

  /** Returns this difference with this cause. */
  public Difference with(Optional<Cause> newCause) {
    return new Difference(at, expected, actual, kind, newCause);
  }

  /** Returns this difference with a place. */
  public Difference at(String place) {
    return new Difference(place, expected, actual, kind, cause);
  }

  /** Returns this difference with a kind. */
  public Difference of(Kind newKind) {
    return new Difference(at, expected, actual, newKind, cause);
  }

  /** Returns true if the request has nothing there. */
  public boolean isMissing() {
    return kind == Kind.MISSING;
  }
}
