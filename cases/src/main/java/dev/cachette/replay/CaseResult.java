// SPDX-License-Identifier: Apache-2.0
package dev.cachette.replay;

import java.nio.file.Path;
import java.time.Duration;
import java.util.List;

/**
 * The result of replaying one case.
 *
 * @param name the name of the case
 * @param file its file
 * @param line the line of its incoming call in the file
 * @param calls its incoming calls: {@code POST http://localhost:8080/v1/arrivals}
 * @param findings what differs; empty if nothing does
 * @param took how long it took
 * @param updated whether its file was updated to what the application does now
 */
public record CaseResult(
    String name,
    Path file,
    int line,
    List<String> calls,
    List<CaseFinding> findings,
    Duration took,
    boolean updated) {

  /** Copies the lists. */
  public CaseResult {
    calls = List.copyOf(calls);
    findings = List.copyOf(findings);
  }

  /** Returns true if the application does what was captured. */
  public boolean isSame() {
    return findings.isEmpty();
  }

  /**
   * Returns the first difference in one line, and the number of others; empty if nothing differs.
   */
  public String summary() {
    if (findings.isEmpty()) {
      return "";
    }
    String first = findings.get(0).summary();
    int more = findings.size() - 1;
    return more == 0 ? first : first + " (and " + more + " more)";
  }

  /** Returns what differs, finding by finding. */
  public String differences() {
    return CaseText.of(this);
  }

  /** Returns what differs, finding by finding, and how to fix it in a test. */
  public String explanation() {
    return CaseText.withFix(this);
  }
}
