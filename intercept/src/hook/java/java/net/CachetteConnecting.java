package java.net;

import java.io.IOException;
import java.util.Collections;
import java.util.Map;
import java.util.WeakHashMap;

/**
 * Lets attempts to connect time out by the clock of a session: those of blocking sockets, and of
 * {@code java.net.http.HttpClient}. Called by the hooks; does nothing while nothing is followed.
 */
public final class CachetteConnecting {

  /** The timeouts of blocking attempts under way, in nanoseconds. */
  private static final Map<Object, Long> TIMEOUTS = Collections.synchronizedMap(new WeakHashMap<>());

  /** How much time has passed for attempts that nobody answers, in nanoseconds. */
  private static final Map<Object, Long> PASSED = Collections.synchronizedMap(new WeakHashMap<>());

  private CachetteConnecting() {}

  /** A blocking attempt with a timeout begins. */
  public static void begins(Object socket, long timeout) throws SocketTimeoutException {
    if (CachetteContext.isFollowing()) {
      // Before it looks: otherwise the time could pass in between.
      TIMEOUTS.put(socket, timeout);
      if (isTimedOut(socket)) {
        throw timedOut();
      }
    }
  }

  /** Such an attempt has ended; returns its result. */
  public static boolean ends(boolean connected, Object socket) throws SocketTimeoutException {
    boolean late = isTimedOut(socket);
    TIMEOUTS.remove(socket);
    if (late) {
      throw timedOut();
    }
    return connected;
  }

  /** Such an attempt has failed, perhaps since it was woken; returns what its client gets. */
  public static Throwable fails(Throwable failure, Object socket) {
    boolean late = isTimedOut(socket);
    TIMEOUTS.remove(socket);
    return late && failure instanceof IOException ? timedOut() : failure;
  }

  /** Lets time pass for an attempt that nobody answers; returns true if it times out now. */
  static boolean pass(Object socket, String host, int port, long nanos) {
    PASSED.put(socket, nanos);
    if (isTimedOut(socket)) {
      CachetteHook.shutDown(socket);
      return true;
    }
    return CachetteTimers.passConnecting(socket, host, port, nanos);
  }

  private static boolean isTimedOut(Object socket) {
    Long timeout = TIMEOUTS.get(socket);
    Long passed = PASSED.get(socket);
    return timeout != null && passed != null && passed >= timeout;
  }

  /** In the JDK's words. */
  private static SocketTimeoutException timedOut() {
    return new SocketTimeoutException("Connect timed out");
  }
}
