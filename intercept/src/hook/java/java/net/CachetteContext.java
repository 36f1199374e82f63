package java.net;

import java.io.IOException;
import java.nio.channels.SocketChannel;
import java.util.concurrent.atomic.AtomicReferenceArray;

/**
 * Follows from test to connection: the mark of a test is on its thread, goes with the tasks that it
 * hands over to other threads, and is left on each connection that is written to. Called by the
 * hooks; does nothing while no test is known.
 */
public final class CachetteContext {

  private static final int PORTS = 65_536;

  private static final ThreadLocal<CachetteMark> CURRENT = new ThreadLocal<>();

  /** The test that started a thread. */
  private static final InheritableThreadLocal<Long> STARTED_BY = new InheritableThreadLocal<>();

  /** By local port: what was left there since the last response. Null while nothing is followed. */
  private static volatile AtomicReferenceArray<CachetteMark> connections;

  /**
   * True once tests were followed. What they have handed over may begin when none is followed, and
   * go on until another one is.
   */
  private static volatile boolean everFollowed;

  private CachetteContext() {}

  /** Begins or ends to follow. */
  static void follow(boolean on) {
    connections = on ? new AtomicReferenceArray<>(PORTS) : null;
    everFollowed |= on;
  }

  /** Returns true if tests are followed. */
  static boolean isFollowing() {
    return connections != null;
  }

  /** From now on, this thread works for a test; for none if it is 0. */
  static void begin(long test) {
    if (test == 0) {
      CURRENT.remove();
      STARTED_BY.remove();
    } else {
      CURRENT.set(new CachetteMark(test, CachetteMark.OWN, Thread.currentThread()));
      STARTED_BY.set(test);
    }
  }

  /** Returns the mark of this thread; what is known of it without one. */
  static CachetteMark current() {
    CachetteMark mark = CURRENT.get();
    return mark == null ? unknown() : mark;
  }

  /** Returns what was left on a connection since its last response, or null. */
  static CachetteMark at(int port) {
    AtomicReferenceArray<CachetteMark> marks = connections;
    return marks == null || port <= 0 ? null : marks.get(port);
  }

  /** The next write to a connection is a new request. */
  static void answered(int port) {
    AtomicReferenceArray<CachetteMark> marks = connections;
    if (marks != null && port > 0) {
      CachetteIncoming.answered(port, marks.getAndSet(port, null));
      CachetteTimers.answered(port);
    }
  }

  /** From now on, what this thread hands over is work of this test; not what it starts. */
  static void handOver(long test) {
    CURRENT.set(new CachetteMark(test, CachetteMark.HANDED_OVER, Thread.currentThread()));
  }

  /** This thread goes on with the work of another one, until it takes something else to do. */
  static void goOnWith(CachetteMark mark) {
    if (!isOwn()) {
      CURRENT.set(mark.takenOver(CachetteMark.NEXT_IS_TAKEN));
    }
  }

  /** A task is handed over to another thread. */
  public static void captured(Object task) {
    if (connections != null && task != null) {
      CachetteTasks.put(task, CURRENT.get());
    }
  }

  /** A client has made a call, which any thread may write. */
  public static void made(Object call) {
    if (connections != null) {
      CachetteTasks.put(call, current());
    }
  }

  /** A thread begins with a task. */
  public static void began(Object task) {
    if (everFollowed && task != null && !isOwn()) {
      CachetteMark mark = CachetteTasks.get(task);
      set(mark == null ? null : mark.takenOver(CachetteMark.TASK_IS_DONE));
    }
  }

  /** A thread has done a task. */
  public static void done() {
    forget();
  }

  /**
   * A thread has taken something from a queue, to do it next. Within a task, the element may be
   * what it does next, or something else that it needs: if they are for different tests, it cannot
   * be told which one counts.
   */
  public static void taken(Object element) {
    if (!everFollowed || element == null || isOwn()) {
      return;
    }
    CachetteMark now = CURRENT.get();
    CachetteMark mark = CachetteTasks.get(element);
    if (now == null || now.until == CachetteMark.NEXT_IS_TAKEN) {
      set(mark == null ? null : mark.takenOver(CachetteMark.NEXT_IS_TAKEN));
    } else if (mark == null || mark.test != now.test) {
      set(null);
    }
  }

  /** A call is about to be written to a connection, by any thread. */
  public static void writes(Object call, Object socket) {
    AtomicReferenceArray<CachetteMark> marks = connections;
    CachetteMark mark = marks == null ? null : CachetteTasks.get(call);
    int port = mark == null ? 0 : localPort(socket);
    if (port > 0) {
      leave(marks, port, mark);
    }
  }

  /** A call becomes a stream of an HTTP/2 connection, which others share. */
  public static void streams(Object call, Object socket, int stream) {
    CachetteMark mark = connections == null ? null : CachetteTasks.get(call);
    int port = mark == null ? 0 : localPort(socket);
    if (port > 0) {
      CachetteStreams.begins(port, stream, mark);
    }
  }

  /** A thread selects among connections. */
  public static void selects() {
    CachetteIncoming.selects();
    forget();
  }

  /** A thread serves many: what it did before says nothing about what it does next. */
  public static void forget() {
    if (everFollowed && !isOwn()) {
      set(null);
    }
  }

  private static boolean isOwn() {
    CachetteMark mark = CURRENT.get();
    return mark != null && mark.how == CachetteMark.OWN;
  }

  private static void set(CachetteMark mark) {
    if (mark != null || CURRENT.get() != null) {
      CURRENT.set(mark);
    }
  }

  /** A socket is written to. */
  public static void wrote(Object socket) {
    CachetteUnserved.used(socket);
    AtomicReferenceArray<CachetteMark> marks = connections;
    if (marks == null) {
      return;
    }
    int port = localPort(socket);
    if (port <= 0) {
      return;
    }
    CachetteMark mark = CURRENT.get();
    if (mark != null) {
      leave(marks, port, mark);
    } else if (marks.get(port) == null) {
      marks.compareAndSet(port, null, unknown());
    }
  }

  private static void leave(
      AtomicReferenceArray<CachetteMark> marks, int port, CachetteMark mark) {
    CachetteMark before = marks.get(port);
    while (before != mark) {
      CachetteMark both = before == null ? mark : before.and(mark);
      if (both == before || marks.compareAndSet(port, before, both)) {
        return;
      }
      before = marks.get(port);
    }
  }

  private static CachetteMark unknown() {
    Long test = STARTED_BY.get();
    return test == null
        ? new CachetteMark(0, CachetteMark.NONE, Thread.currentThread())
        : new CachetteMark(test, CachetteMark.STARTED, Thread.currentThread());
  }

  /** Returns 0 if it has none. */
  static int localPort(Object socket) {
    if (socket instanceof SocketImpl plain) {
      return plain.getLocalPort();
    }
    try {
      return socket instanceof SocketChannel channel
              && channel.getLocalAddress() instanceof InetSocketAddress address
          ? address.getPort()
          : 0;
    } catch (IOException closed) {
      return 0;
    }
  }
}
