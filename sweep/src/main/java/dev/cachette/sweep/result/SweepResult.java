// SPDX-License-Identifier: Apache-2.0
package dev.cachette.sweep.result;

import dev.cachette.internal.text.Failed;
import java.util.List;

/**
 * The result of a sweep.
 *
 * @param name the name of the sweep
 * @param runs its runs, by call and fault
 * @param omitted what was not tried: large responses have more members than are changed
 */
public record SweepResult(String name, List<SweptRun> runs, List<String> omitted) {

  /** Copies the lists. */
  public SweepResult {
    runs = List.copyOf(runs);
    omitted = List.copyOf(omitted);
  }

  /** Returns the runs in which something is wrong. */
  public List<SweptRun> wrong() {
    return runs.stream().filter(run -> !run.isRight()).toList();
  }

  /** Returns the table: calls down, faults across, what the code did in each cell. */
  public String table() {
    return SweepText.table(runs, omitted);
  }

  /**
   * Requires that nothing is wrong.
   *
   * @throws org.opentest4j.AssertionFailedError if something is, with the table and each finding
   */
  public void assertRight() {
    if (!wrong().isEmpty()) {
      throw Failed.of(SweepText.failure(this));
    }
  }

  /** Returns a summary in one line. */
  @Override
  public String toString() {
    return SweepText.summary(name, runs);
  }
}
