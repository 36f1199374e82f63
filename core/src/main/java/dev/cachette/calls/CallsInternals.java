// SPDX-License-Identifier: Apache-2.0
package dev.cachette.calls;

import dev.cachette.internal.calls.Log;
import dev.cachette.match.RequestPattern;
import dev.cachette.result.StubReference;

/**
 * Members of this package for the implementation. Not public API: may change in any release.
 *
 * @hidden
 */
public final class CallsInternals {

  private CallsInternals() {}

  /** Returns all calls of a log. */
  public static Calls of(Log<Call> log) {
    return Calls.of(log);
  }

  /**
   * Returns those of these calls that a stub answered; its pattern explains why others are not
   * included.
   */
  public static Calls answeredBy(Calls calls, StubReference stub, RequestPattern pattern) {
    return calls.answeredBy(stub, pattern);
  }
}
