// SPDX-License-Identifier: Apache-2.0
package dev.cachette.sweep.result;

import dev.cachette.internal.text.Failed;
import java.time.Duration;
import java.util.List;
import java.util.Optional;

/**
 * One run of a scenario, with one fault at one of its calls.
 *
 * @param id what runs it alone: {@code 2/NO_RESPONSE}, {@code 3/NULL_MEMBER/$.berth}
 * @param number the number of the call in the scenario, from 1
 * @param call its method and URL
 * @param fault the fault
 * @param detail the place of the fault in the body; empty if it has none
 * @param outcome what the code did
 * @param repeats how often the call was made again
 * @param thrown what the scenario has thrown
 * @param findings what is wrong; empty if nothing is
 * @param calls the calls that were made, each with its outcome
 * @param duration how long it took
 */
public record SweptRun(
    String id,
    int number,
    String call,
    SweepFault fault,
    String detail,
    Outcome outcome,
    int repeats,
    Optional<Throwable> thrown,
    List<String> findings,
    List<String> calls,
    Duration duration) {

  /** The behaviour of the code in a run. */
  public enum Outcome {
    /** It returned a right result. */
    RECOVERED,
    /** It threw an exception that is allowed. */
    FAILED_AS_ALLOWED,
    /** It did something that is not allowed. */
    FAILED,
    /** It did not end in time. */
    HUNG,
    /** It did not get the fault: the call was not made, or needed no connection of its own. */
    NOT_MET,
    /** It was not run, since an earlier one did not end. */
    NOT_RUN
  }

  /** Copies the lists. */
  public SweptRun {
    findings = List.copyOf(findings);
    calls = List.copyOf(calls);
  }

  /** Returns true if nothing is wrong. */
  public boolean isRight() {
    return findings.isEmpty();
  }

  /**
   * Requires that nothing is wrong.
   *
   * @throws org.opentest4j.AssertionFailedError if something is, with the calls of the run
   */
  public void assertRight() {
    if (!isRight()) {
      throw Failed.of(SweepText.failure(this));
    }
  }

  /** Returns its call and fault in words. */
  @Override
  public String toString() {
    return number + " " + call + ", " + fault + (detail.isEmpty() ? "" : " " + detail);
  }
}
