package java.net;

import java.lang.reflect.Field;
import java.lang.reflect.Method;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.WeakHashMap;
import java.util.concurrent.ConcurrentHashMap;

/**
 * Lets clients time out by the clock of a session: a read of a blocking socket, and a request of
 * {@code java.net.http.HttpClient}. Called by the hooks; does nothing while nothing is followed.
 */
public final class CachetteTimers {

  private static final String REQUEST_TIMER = "jdk.internal.net.http.ResponseTimerEvent";

  /** By local port: the timeouts of reads under way, in nanoseconds. */
  private static final Map<Integer, Long> READING = new ConcurrentHashMap<>();

  /** By local port: how much time has passed for the present call, in nanoseconds. */
  private static final Map<Integer, Long> PASSED = new ConcurrentHashMap<>();

  /** Timers of requests. Guarded by itself. */
  private static final Set<Object> TIMERS = Collections.newSetFromMap(new WeakHashMap<>());

  private CachetteTimers() {}

  /** A blocking read with a timeout begins. */
  public static void reads(Object socket, long timeout) throws SocketTimeoutException {
    CachetteUnserved.used(socket);
    if (CachetteContext.isFollowing() && socket instanceof SocketImpl plain) {
      int port = plain.getLocalPort();
      // Before it looks: otherwise the time could pass in between.
      READING.put(port, timeout);
      throwIfPassed(port, timeout);
    }
  }

  /** A blocking read with a timeout has got something; returns that. */
  public static int read(int count, Object socket) throws SocketTimeoutException {
    if (CachetteContext.isFollowing() && socket instanceof SocketImpl plain) {
      int port = plain.getLocalPort();
      Long timeout = READING.remove(port);
      if (timeout != null) {
        throwIfPassed(port, timeout);
      }
    }
    return count;
  }

  private static void throwIfPassed(int port, long timeout) throws SocketTimeoutException {
    Long passed = PASSED.get(port);
    if (passed != null && passed >= timeout) {
      PASSED.remove(port);
      READING.remove(port);
      throw new SocketTimeoutException("Read timed out");
    }
  }

  /** A timer of {@code java.net.http.HttpClient} begins. */
  public static void begins(Object timer) {
    if (CachetteContext.isFollowing() && timer.getClass().getName().equals(REQUEST_TIMER)) {
      synchronized (TIMERS) {
        TIMERS.add(timer);
      }
    }
  }

  /** A response is sent, or another request: what has passed for the one before does not count. */
  static void answered(int port) {
    PASSED.remove(port);
  }

  /** Lets time pass for a call; returns true if its client is in a read that has timed out. */
  static boolean pass(int port, String method, URI uri, long nanos) {
    PASSED.put(port, nanos);
    for (Object timer : timersOf(method, uri)) {
      fire(timer, nanos);
    }
    Long timeout = READING.get(port);
    return timeout != null && timeout <= nanos;
  }

  private static List<Object> timersOf(String method, URI uri) {
    List<Object> all;
    synchronized (TIMERS) {
      all = new ArrayList<>(TIMERS);
    }
    all.removeIf(timer -> !isFor(timer, method, uri));
    return all;
  }

  private static boolean isFor(Object timer, String method, URI uri) {
    try {
      Object exchange = valueOf(timer.getClass(), "multiExchange", timer);
      Object request = valueOf(exchange.getClass(), "userRequest", exchange);
      Class<?> type = Class.forName("java.net.http.HttpRequest", false, loader(timer));
      return method.equals(type.getMethod("method").invoke(request))
          && uri.equals(type.getMethod("uri").invoke(request));
    } catch (ReflectiveOperationException | RuntimeException otherJdk) {
      // The timer will fire by itself.
      return false;
    }
  }

  private static void fire(Object timer, long nanos) {
    try {
      Duration duration = (Duration) valueOf(timer.getClass().getSuperclass(), "duration", timer);
      boolean due = duration.toNanos() <= nanos;
      synchronized (TIMERS) {
        due = due && TIMERS.remove(timer);
      }
      if (due) {
        Method handle = timer.getClass().getMethod("handle");
        handle.setAccessible(true);
        handle.invoke(timer);
      }
    } catch (ReflectiveOperationException | RuntimeException otherJdk) {
      // The timer will fire by itself.
    }
  }

  private static Object valueOf(Class<?> type, String field, Object object)
      throws ReflectiveOperationException {
    Field found = type.getDeclaredField(field);
    found.setAccessible(true);
    return found.get(object);
  }

  private static ClassLoader loader(Object object) {
    return object.getClass().getClassLoader();
  }
}
