package dev.cachette.calls;

import dev.cachette.internal.calls.CallsAccess;
import dev.cachette.internal.calls.Log;
import dev.cachette.match.RequestPattern;
import dev.cachette.result.StubReference;

/** Gives the implementation what is hidden from users. Created by {@link CallsAccess}. */
final class CallsInternals extends CallsAccess {

  private CallsInternals() {}

  @Override
  public Calls of(Log log) {
    return Calls.of(log);
  }

  @Override
  public Calls answeredBy(Calls calls, StubReference stub, RequestPattern pattern) {
    return calls.answeredBy(stub, pattern);
  }
}
