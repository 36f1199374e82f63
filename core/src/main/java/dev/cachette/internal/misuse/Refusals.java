// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.misuse;

import org.jspecify.annotations.Nullable;

/**
 * Creates the exceptions for refused arguments, and counts them: a stub whose declaration was
 * refused has no answer, but that is not another mistake.
 */
public final class Refusals {

  private static volatile long count;

  private Refusals() {}

  /** Returns an exception for a refused argument. */
  public static IllegalArgumentException argument(String message) {
    increment();
    return new IllegalArgumentException(message);
  }

  /** Returns an exception for a refused argument, with its cause. */
  public static IllegalArgumentException argument(String message, Throwable cause) {
    increment();
    return new IllegalArgumentException(message, cause);
  }

  /** Returns an exception for a method that is refused in this state. */
  public static IllegalStateException state(String message) {
    increment();
    return new IllegalStateException(message);
  }

  /** Returns the number of refusals so far. */
  public static long count() {
    return count;
  }

  private static synchronized void increment() {
    count++;
  }

  /**
   * Requires an argument.
   *
   * @param what names it in the message: {@code check(condition)}
   */
  public static <T> T given(String what, @Nullable T value) {
    if (value == null) {
      throw argument(what + " was given null.");
    }
    return value;
  }
}
