// SPDX-License-Identifier: Apache-2.0
package dev.cachette.verification;

import dev.cachette.result.Check;
import java.time.Duration;
import java.util.List;

/**
 * The result of one clause.
 *
 * @param consumer the consumer
 * @param consumerVersion its version; empty if the contract is not from a store
 * @param provider the provider
 * @param clause the name of the clause
 * @param request method and path of the request that was sent
 * @param given the states that the provider was in
 * @param neededBy the tests of the consumer that rely on the clause
 * @param outcome whether the provider meets it
 * @param checks what was compared; empty if there was no response
 * @param problem why there was no response; empty if there was one
 * @param took the time of the call
 */
public record ClauseResult(
    String consumer,
    String consumerVersion,
    String provider,
    String clause,
    String request,
    List<String> given,
    List<String> neededBy,
    Outcome outcome,
    List<Check> checks,
    String problem,
    Duration took) {

  /** The outcome for one clause. */
  public enum Outcome {
    /** It does. */
    MET,
    /** It answers otherwise. */
    NOT_MET,
    /** It could not be asked: a state cannot be set up, or there is no answer. */
    NOT_CHECKED
  }

  /** Copies the lists. */
  public ClauseResult {
    given = List.copyOf(given);
    neededBy = List.copyOf(neededBy);
    checks = List.copyOf(checks);
  }

  /** Returns true if the provider meets the clause. */
  public boolean isMet() {
    return outcome == Outcome.MET;
  }

  /** Returns the first difference in one line; "met" if there is none. */
  public String summary() {
    return Shortly.of(this);
  }

  /** Returns the explanation: request, states, tests, and each check with expected and actual. */
  public String explanation() {
    return ClauseText.of(this);
  }
}
