package dev.cachette.internal.agent;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.channels.ServerSocketChannel;
import java.nio.channels.SocketChannel;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Set;
import java.util.WeakHashMap;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/**
 * Addresses on the loopback that connections fail at, in the two ways in which the network itself
 * makes them fail. Both are made when they are first needed.
 */
final class DeadEnds implements AutoCloseable {

  /** What a queue of length 0 takes, and some more: the kernel rounds up. */
  private static final int FILLING = 8;

  private final Consumer<Object> shutDown;
  private final Set<Object> waiting = Collections.newSetFromMap(new WeakHashMap<>());
  private final List<SocketChannel> filling = new ArrayList<>();
  private @Nullable SocketChannel refusing;
  private @Nullable ServerSocketChannel silent;

  /**
   * None yet.
   *
   * @param shutDown ends a socket that is connecting
   */
  DeadEnds(Consumer<Object> shutDown) {
    this.shutDown = shutDown;
  }

  /** A port that is bound, so that nobody else takes it, and where nobody listens. */
  synchronized InetSocketAddress refusing() throws IOException {
    if (refusing == null) {
      refusing = SocketChannel.open();
      refusing.bind(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0));
    }
    return (InetSocketAddress) refusing.getLocalAddress();
  }

  /**
   * A port whose queue is full, so that the kernel drops what asks for a connection.
   *
   * @param socket the one that is going to wait there
   */
  synchronized InetSocketAddress silent(Object socket) throws IOException {
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
    waiting.add(socket);
    return (InetSocketAddress) silent.getLocalAddress();
  }

  /**
   * Ends what waits for a connection: whoever is just about to is refused, as nobody listens there
   * any more; whoever waits already is shut down.
   */
  void endWaiting() throws IOException {
    List<Object> ending;
    synchronized (this) {
      closeSilent();
      ending = List.copyOf(waiting);
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
