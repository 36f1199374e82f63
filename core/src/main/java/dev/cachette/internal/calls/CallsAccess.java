package dev.cachette.internal.calls;

import dev.cachette.calls.Calls;
import dev.cachette.internal.access.HiddenMembers;
import dev.cachette.match.RequestPattern;
import dev.cachette.result.StubReference;

/**
 * Gives the implementation members of the types in {@code dev.cachette.calls} that users do not
 * see. The only subclass is in that package.
 */
public abstract class CallsAccess {

  private static final class Holder {
    static final CallsAccess ACCESS =
        HiddenMembers.of(CallsAccess.class, "dev.cachette.calls.CallsInternals");
  }

  /** For the subclass. */
  protected CallsAccess() {}

  /** Returns the access. */
  public static CallsAccess callsAccess() {
    return Holder.ACCESS;
  }

  /** Returns all calls of a log. */
  public abstract Calls of(Log log);

  /**
   * Returns those of these calls that a stub answered; its pattern explains why others are not
   * included.
   */
  public abstract Calls answeredBy(Calls calls, StubReference stub, RequestPattern pattern);
}
