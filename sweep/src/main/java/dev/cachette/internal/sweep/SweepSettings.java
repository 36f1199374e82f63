// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.sweep;

import dev.cachette.http.Request;
import dev.cachette.match.RequestPattern;
import dev.cachette.sweep.result.SweepFault;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * The settings of a sweep: what it tries, and what may happen.
 *
 * @param name its name
 * @param faults the faults
 * @param calls the calls that get faults; empty for all
 * @param allowed the exceptions that the scenario may throw
 * @param invariants what must hold after each run, by name
 * @param mayRepeat calls that may be made again, though their method is not idempotent
 * @param mayLeaveOut calls that need not be made if there is a fault
 * @param retries how often the call with the fault may be made again
 * @param within how long a run may take
 * @param lasting whether a fault lasts to the end of its run
 * @param slow the delay of a slow response
 * @param members how many members of a body are tried, per fault
 * @param seed chooses them
 * @param only the only run; empty for all
 */
public record SweepSettings(
    String name,
    Set<SweepFault> faults,
    List<RequestPattern> calls,
    Set<Class<? extends Throwable>> allowed,
    Map<String, Runnable> invariants,
    List<RequestPattern> mayRepeat,
    List<RequestPattern> mayLeaveOut,
    int retries,
    Duration within,
    boolean lasting,
    Duration slow,
    int members,
    long seed,
    Optional<String> only) {

  /** Returns true if a call gets faults. */
  boolean tries(Request request) {
    return calls.isEmpty() || isAny(calls, request);
  }

  /** Returns true if a call may be made again, though its method is not idempotent. */
  boolean allowsRepeating(Request request) {
    return isAny(mayRepeat, request);
  }

  /** Returns true if a call need not be made. */
  boolean allowsLeavingOut(Request request) {
    return isAny(mayLeaveOut, request);
  }

  private static boolean isAny(List<RequestPattern> patterns, Request request) {
    return patterns.stream().anyMatch(it -> it.match(request).isPresent());
  }
}
