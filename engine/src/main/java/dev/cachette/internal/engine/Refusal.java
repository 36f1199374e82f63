// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import org.opentest4j.AssertionFailedError;

/**
 * Why a call cannot be answered, not even by an explanation of what is missing.
 *
 * @param status the status of its response
 * @param failure the failure of the test
 */
record Refusal(int status, AssertionFailedError failure) {

  private static final int INTERNAL_ERROR = 500;

  /** Returns the refusal of a call that failed. */
  static Refusal of(AssertionFailedError failure) {
    return new Refusal(INTERNAL_ERROR, failure);
  }
}
