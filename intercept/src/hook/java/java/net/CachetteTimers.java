package java.net;

import java.lang.reflect.Field;
import java.lang.reflect.Method;
import java.nio.channels.SocketChannel;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.WeakHashMap;
import java.util.concurrent.ConcurrentHashMap;

/**
 * Lets clients time out by the clock of a session: a read of a blocking socket, and the timers
 * of {@code java.net.http.HttpClient}. Called by the hooks; does nothing while nothing is followed.
 */
public final class CachetteTimers {

  private static final String JDK_CLIENT = "jdk.internal.net.http.";
  private static final String REQUEST_TIMER = JDK_CLIENT + "ResponseTimerEvent";
  private static final String CONNECT_TIMER = JDK_CLIENT + "PlainHttpConnection$ConnectTimerEvent";

  private static final String CONNECTION = JDK_CLIENT + "HttpConnection";

  private static final int HTTP = 80;
  private static final int HTTPS = 443;

  /** By local port: the timeouts of reads under way, in nanoseconds. */
  private static final Map<Integer, Long> READING = new ConcurrentHashMap<>();

  /** By local port: how much time has passed for the present call, in nanoseconds. */
  private static final Map<Integer, Long> PASSED = new ConcurrentHashMap<>();

  /** Ports from which the present call has timed out: the next timer there is that of another one. */
  private static final Set<Integer> FIRED = ConcurrentHashMap.newKeySet();

  /** Timers of {@code java.net.http.HttpClient}. Guarded by itself. */
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
        Long passed = throwIfPassed(port, timeout);
        if (passed != null) {
          // It has come in time; what comes later may have another timeout. Not if more has passed
          // meanwhile.
          PASSED.remove(port, passed);
        }
      }
    }
    return count;
  }

  /** Returns how much has passed, if that is less than the timeout; null if nothing is known. */
  private static Long throwIfPassed(int port, long timeout) throws SocketTimeoutException {
    Long passed = PASSED.get(port);
    if (passed != null && passed >= timeout) {
      PASSED.remove(port);
      READING.remove(port);
      throw new SocketTimeoutException("Read timed out");
    }
    return passed;
  }

  /** A timer of {@code java.net.http.HttpClient} begins. */
  public static void begins(Object timer) {
    if (CachetteContext.isFollowing() && (isOf(REQUEST_TIMER, timer) || isOf(CONNECT_TIMER, timer))) {
      synchronized (TIMERS) {
        TIMERS.add(timer);
      }
    }
  }

  /** A response is sent, or another request: what has passed for the one before does not count. */
  static void answered(int port) {
    PASSED.remove(port);
    FIRED.remove(port);
  }

  /** Lets time pass for a call; returns true if its client is in a read that has timed out. */
  static boolean pass(int port, String method, URI uri, long nanos) {
    PASSED.put(port, nanos);
    for (Object timer : FIRED.contains(port) ? List.of() : timers()) {
      try {
        if (isOf(REQUEST_TIMER, timer)
            && isFor(timer, method, uri)
            && portOf(channelOf(timer)) == port
            && fire(timer, nanos)) {
          FIRED.add(port);
        }
      } catch (ReflectiveOperationException | RuntimeException otherJdk) {
        // The timer will fire by itself.
      }
    }
    Long timeout = READING.get(port);
    return timeout != null && timeout <= nanos;
  }

  /**
   * Lets time pass for an attempt to connect; the timeout of a request includes it. Returns true if
   * it times out.
   */
  static boolean passConnecting(Object socket, String host, int port, long nanos) {
    boolean timedOut = false;
    for (Object timer : timers()) {
      try {
        boolean wanted =
            isOf(CONNECT_TIMER, timer)
                ? isOfConnection(timer, socket)
                : isConnecting(timer, socket, host, port);
        timedOut |= wanted && fire(timer, nanos);
      } catch (ReflectiveOperationException | RuntimeException otherJdk) {
        // The timer will fire by itself.
      }
    }
    return timedOut;
  }

  private static List<Object> timers() {
    synchronized (TIMERS) {
      return new ArrayList<>(TIMERS);
    }
  }

  private static boolean isOf(String className, Object timer) {
    return timer.getClass().getName().equals(className);
  }

  private static boolean isFor(Object timer, String method, URI uri)
      throws ReflectiveOperationException {
    Class<?> type = requestType(timer);
    Object request = request(timer);
    return method.equals(type.getMethod("method").invoke(request))
        && uri.equals(type.getMethod("uri").invoke(request));
  }

  private static boolean isOfConnection(Object timer, Object socket)
      throws ReflectiveOperationException {
    Object connection = valueOf(timer.getClass(), "this$0", timer);
    return valueOf(connection.getClass(), "chan", connection) == socket;
  }

  /** Its request waits for this attempt: has this connection, or none yet to this host and port. */
  private static boolean isConnecting(Object timer, Object socket, String host, int port)
      throws ReflectiveOperationException {
    Object channel = channelOf(timer);
    return channel == null
        ? isTo(host, port, (URI) requestType(timer).getMethod("uri").invoke(request(timer)))
        : channel == socket;
  }

  /** Returns the channel of the request of a timer; null if it has no connection yet. */
  private static Object channelOf(Object timer) throws ReflectiveOperationException {
    Object calls = valueOf(timer.getClass(), "multiExchange", timer);
    Object call = valueOf(calls.getClass(), "exchange", calls);
    Object started = valueOf(call.getClass(), "exchImpl", call);
    if (started == null) {
      return null;
    }
    Object connection = valueOf(started.getClass(), "connection", started);
    Class<?> type = Class.forName(CONNECTION, false, timer.getClass().getClassLoader());
    if (!type.isInstance(connection)) {
      // Of HTTP/2.
      connection = valueOf(connection.getClass(), "connection", connection);
    }
    Method channel = type.getDeclaredMethod("channel");
    channel.setAccessible(true);
    return channel.invoke(connection);
  }

  private static int portOf(Object channel) {
    return channel instanceof SocketChannel open ? open.socket().getLocalPort() : 0;
  }

  private static boolean isTo(String host, int port, URI uri) {
    int ofScheme = "https".equals(uri.getScheme()) ? HTTPS : HTTP;
    return host.equalsIgnoreCase(uri.getHost())
        && port == (uri.getPort() >= 0 ? uri.getPort() : ofScheme);
  }

  private static Object request(Object timer) throws ReflectiveOperationException {
    Object calls = valueOf(timer.getClass(), "multiExchange", timer);
    return valueOf(calls.getClass(), "userRequest", calls);
  }

  private static Class<?> requestType(Object timer) throws ClassNotFoundException {
    return Class.forName("java.net.http.HttpRequest", false, timer.getClass().getClassLoader());
  }

  private static boolean fire(Object timer, long nanos) throws ReflectiveOperationException {
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
    return due;
  }

  private static Object valueOf(Class<?> type, String field, Object object)
      throws ReflectiveOperationException {
    Field found = type.getDeclaredField(field);
    found.setAccessible(true);
    return found.get(object);
  }
}
