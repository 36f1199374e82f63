// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.control.CaseControl;
import dev.cachette.replay.CaseResult;
import dev.cachette.replay.ReplayReports;
import dev.cachette.replay.ReplayResult;
import java.util.List;

/**
 * The cases of a replay, as the control port shows them; they cannot be changed.
 *
 * @param results the results until now; guarded by itself
 */
record ReplayedCases(List<CaseResult> results) implements CaseControl {

  @Override
  public JsonNode cases() {
    synchronized (results) {
      return ReplayReports.json(new ReplayResult(results)).get("cases");
    }
  }

  @Override
  public void rename(long number, String name) {
    throw refused();
  }

  @Override
  public void drop(long number) {
    throw refused();
  }

  @Override
  public void markVarying(long number, String place) {
    throw refused();
  }

  private static IllegalStateException refused() {
    return new IllegalStateException(
        "Cases are replayed here, not captured. Fix: change their files.");
  }
}
