// SPDX-License-Identifier: Apache-2.0
package dev.cachette.verification;

/** Runs before or after each clause. */
@FunctionalInterface
public interface Step {

  /**
   * Runs.
   *
   * @throws Exception if it fails; so does the clause
   */
  void run() throws Exception;
}
