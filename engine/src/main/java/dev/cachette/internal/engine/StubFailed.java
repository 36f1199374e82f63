// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.http.Request;
import dev.cachette.internal.explain.RequestText;
import dev.cachette.internal.limit.TimeLimit;
import dev.cachette.internal.limit.TimeLimitExceeded;
import dev.cachette.internal.text.Failed;
import dev.cachette.match.MatchInternals;
import dev.cachette.match.Received;
import java.util.Map;
import java.util.Optional;
import org.opentest4j.AssertionFailedError;

/** Thrown if user code throws while a stub is tested or answers. */
final class StubFailed extends RuntimeException {

  private static final long serialVersionUID = 1;

  private final transient StubRule rule;

  StubFailed(StubRule rule, Throwable cause) {
    super(cause.toString(), cause);
    this.rule = rule;
  }

  /** Tests whether a stub matches. */
  static Optional<Map<String, String>> match(StubRule rule, Received received) {
    TimeLimit.testingStub(rule.reference()::toString);
    try {
      return MatchInternals.match(rule.pattern(), received);
    } catch (RuntimeException | Error thrown) {
      throw new StubFailed(rule, thrown);
    }
  }

  /** Returns the failure of the test. */
  AssertionFailedError failure(Request request) {
    Throwable cause = getCause();
    if (cause instanceof TimeLimitExceeded exceeded) {
      return undecided(request, exceeded);
    }
    String what =
        cause instanceof AssertionError && cause.getMessage() != null
            ? cause.getMessage().stripTrailing()
            : "threw " + cause;
    return Failed.of(
        String.format(
            "The stub %s failed to answer: %s\n\n%s",
            rule.reference(), what, RequestText.of(request)),
        cause);
  }

  /** Returns the failure of a test for whose call no stub could be chosen in time. */
  static AssertionFailedError undecided(Request request, TimeLimitExceeded exceeded) {
    return Failed.of(
        String.format(
            "No stub answers %s: %s.\n\n"
                + "Fix: make it simpler; or, if it needs the time, or while you debug it, raise"
                + " Settings.conditionTimeout(duration), or -Dcachette.conditionTimeout=10s.\n\n%s",
            request, exceeded.getMessage(), RequestText.of(request)));
  }
}
