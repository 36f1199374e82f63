// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.limit;

/** Thrown when a condition could not be decided in time. */
public final class TimeLimitExceeded extends RuntimeException {

  private static final long serialVersionUID = 1;

  private final String outcome;

  /**
   * Creates the exception.
   *
   * @param what what could not be decided, in words
   * @param outcome the rest of the sentence
   */
  TimeLimitExceeded(String what, String outcome) {
    // Without a stack trace: where a condition happened to be says nothing.
    super(what + " " + outcome, null, false, false);
    this.outcome = outcome;
  }

  /** Returns {@code could not be decided in 2 s}. */
  public String outcome() {
    return outcome;
  }
}
