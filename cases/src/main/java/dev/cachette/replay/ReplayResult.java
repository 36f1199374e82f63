// SPDX-License-Identifier: Apache-2.0
package dev.cachette.replay;

import java.util.List;

/**
 * The results of all cases that were replayed.
 *
 * @param cases the results, in the order of their names
 */
public record ReplayResult(List<CaseResult> cases) {

  /** Copies the list. */
  public ReplayResult {
    cases = List.copyOf(cases);
  }

  /** Returns true if the application does what was captured, in all cases. */
  public boolean isSame() {
    return cases.stream().allMatch(CaseResult::isSame);
  }

  /** Returns the cases in which something differs. */
  public List<CaseResult> different() {
    return cases.stream().filter(it -> !it.isSame()).toList();
  }
}
