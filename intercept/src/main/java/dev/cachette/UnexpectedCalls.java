// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

/** The effect of calls without a stub. Their caller always gets 501 with the reason. */
public enum UnexpectedCalls {

  /** They are logged as warnings, and fail the test at its end, or {@link Cachette#close()}. */
  FAIL,

  /** They are logged as warnings only. */
  WARN
}
