// SPDX-License-Identifier: Apache-2.0
package dev.cachette.verification;

/** Brings a provider into a state, or back out of it. */
@FunctionalInterface
public interface StateHandler {

  /**
   * Changes the provider.
   *
   * @throws Exception if it is not possible; the clause fails with it
   */
  void change(GivenState state) throws Exception;
}
