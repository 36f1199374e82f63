package dev.cachette.internal.calls;

import dev.cachette.calls.Calls;
import dev.cachette.calls.StubReference;
import dev.cachette.match.RequestPattern;
import java.lang.reflect.Constructor;

/**
 * What the implementation needs of the types in {@code dev.cachette.calls}, and users do not. The
 * only subclass is in that package.
 */
public abstract class CallsAccess {

  private static final class Holder {
    static final CallsAccess ACCESS = load();
  }

  /** For the subclass. */
  protected CallsAccess() {}

  /** Returns the access. */
  public static CallsAccess callsAccess() {
    return Holder.ACCESS;
  }

  private static CallsAccess load() {
    try {
      Constructor<?> constructor =
          Class.forName("dev.cachette.calls.CallsInternals").getDeclaredConstructor();
      constructor.setAccessible(true);
      return (CallsAccess) constructor.newInstance();
    } catch (ReflectiveOperationException impossible) {
      throw new IllegalStateException(impossible);
    }
  }

  /** Returns all calls of a log. */
  public abstract Calls of(Log log);

  /**
   * Returns those of these calls that a stub answered; its pattern explains why others are not
   * included.
   */
  public abstract Calls answeredBy(Calls calls, StubReference stub, RequestPattern pattern);
}
