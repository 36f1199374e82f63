package java.net;

import java.util.concurrent.ConcurrentHashMap;

/** The marks of the HTTP/2 streams that {@code java.net.http.HttpClient} has begun. */
final class CachetteStreams {

  /** More wait only if the peers of the connections do not ask: these are not ours. */
  private static final int MOST = 10_000;

  private static final ConcurrentHashMap<Long, CachetteMark> MARKS = new ConcurrentHashMap<>();

  private CachetteStreams() {}

  /** A call begins, as a stream of the connection with this local port. */
  static void begins(int port, int stream, CachetteMark mark) {
    if (MARKS.size() >= MOST) {
      MARKS.clear();
    }
    MARKS.put(key(port, stream), mark);
  }

  /** Returns the mark of a stream, once; null if it has none. */
  static CachetteMark take(int port, int stream) {
    return MARKS.remove(key(port, stream));
  }

  private static long key(int port, int stream) {
    return (long) port << Integer.SIZE | stream;
  }
}
