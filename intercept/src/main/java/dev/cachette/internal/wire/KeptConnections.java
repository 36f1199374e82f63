// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import io.netty.channel.Channel;
import io.netty.channel.ChannelPipeline;
import io.netty.handler.ssl.SslHandler;
import java.net.InetSocketAddress;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Connections of HTTP/1.1 that clients have kept when a session ends, for the next session in this
 * JVM. Blocking clients do not look at a kept connection before they send a request on it, and do
 * not repeat a POST, so that closing it would make their next call fail. Until it is served again,
 * it is not read, and belongs to no thread; if its client uses it, it is closed first.
 */
final class KeptConnections {

  /** More are closed. */
  private static final int MOST = 128;

  private static final List<Kept> ALL = new ArrayList<>();

  private KeptConnections() {}

  /**
   * Keeps a connection, if its client may use it again.
   *
   * @param destination of its listener
   * @return true if it is kept: then it is not registered with its engine any more
   */
  static boolean keep(Channel connection, Destination destination, ClientHooks clients) {
    Kept kept = new Kept(connection, destination);
    if (!clients.leave(destination.host(), kept.port(), kept::end)) {
      return false;
    }
    if (!kept.stop()) {
      clients.take(kept.port());
      return false;
    }
    synchronized (ALL) {
      if (ALL.size() == MOST) {
        Kept oldest = ALL.remove(0);
        clients.take(oldest.port());
        oldest.end();
      }
      ALL.add(kept);
    }
    return true;
  }

  /** Takes all of them, which may be used meanwhile. */
  static List<Kept> take() {
    synchronized (ALL) {
      List<Kept> taken = List.copyOf(ALL);
      ALL.clear();
      return taken;
    }
  }

  /** A connection that is kept. */
  static final class Kept {

    private final Channel connection;
    private final Destination destination;
    private @Nullable Destination target;
    private boolean secure;

    /** Guarded by this, as the next one. */
    private boolean stopped;

    private boolean ended;

    Kept(Channel connection, Destination destination) {
      this.connection = connection;
      this.destination = destination;
    }

    Channel connection() {
      return connection;
    }

    /** Returns the destination of its listener. */
    Destination destination() {
      return destination;
    }

    int port() {
      return ((InetSocketAddress) connection.remoteAddress()).getPort();
    }

    /** Returns true if its client was asked for a certificate as a server asks for it. */
    boolean isAskedAs(boolean asksClients) {
      SslHandler tls = connection.pipeline().get(SslHandler.class);
      return tls == null || tls.engine().getWantClientAuth() == asksClients;
    }

    /** Stops to serve it; returns false if there is an answer to send, or something to read. */
    private boolean stop() {
      boolean idle =
          Boolean.TRUE.equals(
                  connection.eventLoop().submit(this::leave).awaitUninterruptibly().getNow())
              && connection.deregister().awaitUninterruptibly().isSuccess();
      if (idle) {
        synchronized (this) {
          stopped = true;
          if (ended) {
            connection.unsafe().closeForcibly();
          }
        }
      }
      return idle;
    }

    /** On the thread of the connection. */
    private boolean leave() {
      ChannelPipeline pipeline = connection.pipeline();
      if (!HttpPipeline.isIdle(pipeline)) {
        return false;
      }
      CallHandler exchanges = pipeline.get(CallHandler.class);
      target = exchanges.destination();
      secure = exchanges.isSecure();
      HttpPipeline.removeExchanges(pipeline);
      connection.config().setAutoRead(false);
      return true;
    }

    /** Serves it; on the thread of the connection, after it was registered. */
    void serve(Site site) {
      HttpPipeline.addExchanges(connection.pipeline(), target, secure, site);
      connection.config().setAutoRead(true);
    }

    /** Closes it; thread-safe. */
    synchronized void end() {
      ended = true;
      if (stopped) {
        connection.unsafe().closeForcibly();
      }
    }
  }
}
