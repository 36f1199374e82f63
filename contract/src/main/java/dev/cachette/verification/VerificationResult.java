// SPDX-License-Identifier: Apache-2.0
package dev.cachette.verification;

import java.util.List;

/**
 * The results of all clauses of a provider.
 *
 * @param provider the provider
 * @param clauses the results, by consumer and clause
 */
public record VerificationResult(String provider, List<ClauseResult> clauses) {

  /** Copies the list. */
  public VerificationResult {
    clauses = List.copyOf(clauses);
  }

  /** Returns true if the provider meets every clause. */
  public boolean isMet() {
    return clauses.stream().allMatch(ClauseResult::isMet);
  }

  /** Returns the clauses that the provider does not meet, or could not be checked. */
  public List<ClauseResult> unmet() {
    return clauses.stream().filter(it -> !it.isMet()).toList();
  }
}
