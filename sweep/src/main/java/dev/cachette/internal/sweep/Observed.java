// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.sweep;

import dev.cachette.calls.Call;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * The observations of a run.
 *
 * @param isMet whether the fault was given
 * @param isHung whether the run did not end in time
 * @param thrown what the scenario has thrown
 * @param wrongResult why its result is wrong
 * @param isResultChecked whether its result was checked at all
 * @param calls the calls that arrived
 * @param kinds the kinds of calls
 * @param notSent how many attempts failed before there was a request
 * @param broken the invariants that do not hold, each with the reason
 * @param unexpected what the end of the run reports, such as unexpected calls
 */
record Observed(
    boolean isMet,
    boolean isHung,
    Optional<Throwable> thrown,
    Optional<Throwable> wrongResult,
    boolean isResultChecked,
    List<Call> calls,
    CallKinds kinds,
    int notSent,
    Map<String, Throwable> broken,
    Optional<AssertionError> unexpected) {

  /** Returns how often a call was made, or tried. */
  int count(String kind, boolean isOfFault) {
    int arrived = (int) of(kind).count();
    return isOfFault ? arrived + notSent : arrived;
  }

  /** Returns the calls of a kind. */
  Stream<Call> of(String kind) {
    return calls.stream().filter(it -> kinds.of(it.request()).equals(kind));
  }
}
