package java.net;

import java.util.concurrent.ConcurrentHashMap;

/**
 * Connections that clients keep while nobody serves them: from the end of a session to the next
 * one. A client that uses one meanwhile sees that it is closed. Called by the hooks.
 */
final class CachetteUnserved {

  /** By local port: what closes the other side. */
  private static final ConcurrentHashMap<Integer, Runnable> ENDS = new ConcurrentHashMap<>();

  /** True once there was one: until then, writing and reading costs nothing. */
  private static volatile boolean everLeft;

  private CachetteUnserved() {}

  /**
   * Nobody serves the connection from this port until further notice. Returns false if there is one
   * from the same port already, as connections to different ports can have: which of them its client
   * uses could not be told.
   */
  static boolean leave(int port, Runnable end) {
    everLeft = true;
    return ENDS.putIfAbsent(port, end) == null;
  }

  /** Returns true if a connection is still there: from now on it is served. */
  static boolean take(int port) {
    return ENDS.remove(port) != null;
  }

  /** A client uses a connection. */
  static void used(Object socket) {
    if (everLeft && !ENDS.isEmpty()) {
      Runnable end = ENDS.remove(CachetteContext.localPort(socket));
      if (end != null) {
        end.run();
      }
    }
  }
}
