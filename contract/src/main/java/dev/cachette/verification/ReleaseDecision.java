// SPDX-License-Identifier: Apache-2.0
package dev.cachette.verification;

import java.util.List;

/**
 * The answer to: can this version go to this environment?
 *
 * @param name the consumer or provider
 * @param version its version
 * @param environment the environment
 * @param findings one for each version in the environment that it has a contract with
 */
public record ReleaseDecision(
    String name, String version, String environment, List<Finding> findings) {

  /** Copies the list. */
  public ReleaseDecision {
    findings = List.copyOf(findings);
  }

  /**
   * The outcome with one version in the environment.
   *
   * @param other the other side of the contract: {@code harbour-desk@2.1}
   * @param outcome what is known
   * @param reasons why not; empty if it is met
   */
  public record Finding(String other, Compatibility.Outcome outcome, List<String> reasons) {

    /** Copies the list. */
    public Finding {
      reasons = List.copyOf(reasons);
    }
  }

  /** Returns true if every contract is verified and met; also if there is none. */
  public boolean isAllowed() {
    return findings.stream().allMatch(it -> it.outcome() == Compatibility.Outcome.MET);
  }
}
