// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.agent;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.channels.ServerSocketChannel;
import java.nio.channels.SocketChannel;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.WeakHashMap;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/**
 * Loopback addresses where connections fail, in the two ways of the network: refused, or timed out.
 * They are created on demand.
 */
final class UnreachableSockets implements AutoCloseable {

  /** A queue of length 0 accepts this many: the kernel rounds up. */
  private static final int FILLING = 8;

  private final Consumer<Object> shutDown;
  private final Map<Object, Waiting> waiting = new WeakHashMap<>();

  /**
   * An attempt to connect that nobody answers.
   *
   * @param since when it began
   * @param isOver whether its client has timed out
   */
  record Waiting(String host, int port, Instant since, boolean isOver) {

    /** Returns one that begins. */
    static Waiting of(String host, int port, Instant since) {
      return new Waiting(host, port, since, false);
    }

    private Waiting over() {
      return new Waiting(host, port, since, true);
    }
  }

  private final List<SocketChannel> filling = new ArrayList<>();
  private @Nullable SocketChannel refusing;
  private @Nullable ServerSocketChannel silent;

  /**
   * Creates none yet.
   *
   * @param shutDown shuts down a connecting socket
   */
  UnreachableSockets(Consumer<Object> shutDown) {
    this.shutDown = shutDown;
  }

  /** Returns a port that is bound, so that nobody else uses it, but where nothing listens. */
  synchronized InetSocketAddress refusing() throws IOException {
    if (refusing == null) {
      refusing = SocketChannel.open();
      refusing.bind(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0));
    }
    return (InetSocketAddress) refusing.getLocalAddress();
  }

  /**
   * Returns a port with a full queue, so that the kernel drops connection requests.
   *
   * @param socket the socket that will wait there
   */
  synchronized InetSocketAddress silent(Object socket, Waiting attempt) throws IOException {
    if (silent == null) {
      silent = ServerSocketChannel.open();
      silent.bind(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 1);
      for (int at = 0; at < FILLING; at++) {
        SocketChannel connection = SocketChannel.open();
        connection.configureBlocking(false);
        filling.add(connection);
        connection.connect(silent.getLocalAddress());
      }
    }
    waiting.put(socket, attempt);
    return (InetSocketAddress) silent.getLocalAddress();
  }

  /** Returns the sockets that wait, or have waited, unless their clients have timed out. */
  synchronized Map<Object, Waiting> waiting() {
    Map<Object, Waiting> all = new HashMap<>(waiting);
    all.values().removeIf(Waiting::isOver);
    return all;
  }

  /** Notes that the client of a socket has timed out. */
  synchronized void timedOut(Object socket) {
    waiting.computeIfPresent(socket, (unused, attempt) -> attempt.over());
  }

  /**
   * Ends waiting connections: new ones are refused, because nothing listens any more; those already
   * waiting are shut down.
   */
  void endWaiting() throws IOException {
    List<Object> ending;
    synchronized (this) {
      closeSilent();
      ending = List.copyOf(waiting.keySet());
      waiting.clear();
    }
    ending.forEach(shutDown);
  }

  @Override
  public void close() throws IOException {
    try (SocketChannel closing = refusing) {
      endWaiting();
    }
  }

  private void closeSilent() throws IOException {
    try (ServerSocketChannel closing = silent) {
      for (SocketChannel connection : filling) {
        connection.close();
      }
    }
    filling.clear();
    silent = null;
  }
}
