// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

/** The effect of stubs that no call used, at the end of a test. */
public enum UnusedStubs {

  /** They are logged as a warning. The default. */
  WARN,

  /** They fail the test. */
  FAIL,

  /** They are ignored. */
  IGNORE
}
