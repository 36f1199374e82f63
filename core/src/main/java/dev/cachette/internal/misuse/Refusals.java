// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.misuse;

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
}
