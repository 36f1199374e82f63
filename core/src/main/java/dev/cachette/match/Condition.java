// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import dev.cachette.result.Check;

/**
 * A condition that a request must meet. Created by {@link Conditions} and {@link Bodies}, or
 * implemented by you.
 *
 * <p>Conditions are evaluated for many requests, by several threads, and must not block.
 */
public interface Condition {

  /**
   * Returns the requirement as messages show it: {@code header authorization: starts with "Bearer
   * "}.
   */
  String description();

  /** Tests a request, and explains the result. */
  Check check(Received received);

  /**
   * Returns true if the request meets it; the same as {@code check(received).holds()}, without the
   * reasons.
   */
  default boolean holds(Received received) {
    return check(received).holds();
  }

  /** Returns a condition that holds if this one or another one holds. */
  default Condition or(Condition other) {
    return new AnyOf(this, Arguments.given("or(condition)", other));
  }

  /** Returns a condition that holds if this one does not. */
  default Condition negated() {
    return new Negated(this);
  }
}
