// SPDX-License-Identifier: Apache-2.0
package dev.cachette.result;

import java.util.List;

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
}
