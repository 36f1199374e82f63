// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.text;

import org.jspecify.annotations.Nullable;
import org.opentest4j.AssertionFailedError;

/** Creates the errors that fail a test, whose messages may be printed in a terminal. */
public final class Failed {

  private Failed() {}

  /** Returns an error with this message. */
  public static AssertionFailedError of(String message) {
    return new AssertionFailedError(Printable.of(message));
  }

  /** Returns an error with this message and cause. */
  public static AssertionFailedError of(String message, Throwable cause) {
    return new AssertionFailedError(Printable.of(message), cause);
  }

  /** Returns an error with what was expected and found, which IDEs compare. */
  public static AssertionFailedError of(
      String message, @Nullable Object expected, @Nullable Object actual) {
    return new AssertionFailedError(Printable.of(message), expected, actual);
  }
}
