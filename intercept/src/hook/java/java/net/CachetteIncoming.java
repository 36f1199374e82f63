package java.net;

import java.io.IOException;
import java.nio.channels.SocketChannel;
import java.util.concurrent.atomic.AtomicReferenceArray;

/**
 * Follows calls that this JVM answers: a thread that reads a request works for it from then on, and
 * one that reads a response goes on with what the request was for. Called by the hooks; does nothing
 * until it follows.
 */
public final class CachetteIncoming {

  private static final int PORTS = 65_536;

  /** Servers whose threads serve one connection at a time, although they select. */
  private static final String[] ONE_AT_A_TIME = {
    ".jetty.io.ManagedSelector", "sun.net.httpserver.ServerImpl"
  };

  /** By remote port: the call that a connection carries. Null while no call is followed. */
  private static volatile AtomicReferenceArray<CachetteMark> calls;

  /** By local port: who made the request whose response is sent. */
  private static volatile AtomicReferenceArray<CachetteMark> requests;

  /** True for threads that serve many connections at once: what they do next is for any of them. */
  private static final ThreadLocal<Boolean> SHARED = new ThreadLocal<>();

  private CachetteIncoming() {}

  /** Begins to follow: threads that select from now on are known. */
  static synchronized void follow() {
    if (calls == null) {
      requests = new AtomicReferenceArray<>(PORTS);
      calls = new AtomicReferenceArray<>(PORTS);
    }
  }

  /** A connection from this port carries a call; none if it is 0. */
  static void carries(int remotePort, long call) {
    follow();
    calls.set(
        remotePort,
        call == 0 ? null : new CachetteMark(call, CachetteMark.OWN, Thread.currentThread()));
  }

  /** The request that was made on a connection from this port is answered. */
  static void answered(int port, CachetteMark mark) {
    AtomicReferenceArray<CachetteMark> marks = requests;
    if (marks != null) {
      marks.set(port, mark);
    }
  }

  /** This thread selects among connections. */
  static void selects() {
    if (calls != null && SHARED.get() == null) {
      SHARED.set(!servesOneAtATime());
    }
  }

  private static boolean servesOneAtATime() {
    for (StackTraceElement frame : new Throwable().getStackTrace()) {
      for (String server : ONE_AT_A_TIME) {
        if (frame.getClassName().contains(server)) {
          return true;
        }
      }
    }
    return false;
  }

  /** A socket was read; returns what was read. */
  public static int read(int count, Object socket) {
    read((long) count, socket);
    return count;
  }

  /** A socket was read; returns what was read. */
  public static long read(long count, Object socket) {
    AtomicReferenceArray<CachetteMark> carried = calls;
    if (carried != null && count > 0) {
      CachetteMark mark = markOf(socket, carried);
      if (mark != null && !Boolean.TRUE.equals(SHARED.get())) {
        CachetteContext.goOnWith(mark);
      } else if (socket instanceof SocketChannel channel && !channel.isBlocking()) {
        CachetteContext.forget();
      }
    }
    return count;
  }

  private static CachetteMark markOf(Object socket, AtomicReferenceArray<CachetteMark> carried) {
    int remote = remotePort(socket);
    CachetteMark mark = remote <= 0 ? null : carried.get(remote);
    if (mark == null) {
      int local = CachetteContext.localPort(socket);
      mark = local <= 0 ? null : requests.get(local);
    }
    return mark != null && mark.how >= CachetteMark.HANDED_OVER ? mark : null;
  }

  private static int remotePort(Object socket) {
    if (socket instanceof SocketImpl plain) {
      return plain.getPort();
    }
    try {
      return socket instanceof SocketChannel channel
              && channel.getRemoteAddress() instanceof InetSocketAddress address
          ? address.getPort()
          : 0;
    } catch (IOException closed) {
      return 0;
    }
  }
}
