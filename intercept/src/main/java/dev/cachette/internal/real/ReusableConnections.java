// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.real;

import io.netty.channel.Channel;
import io.netty.channel.ChannelHandlerContext;
import io.netty.channel.ChannelInboundHandlerAdapter;
import io.netty.util.ReferenceCountUtil;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;

/**
 * Connections whose call has ended, for later calls (RFC 9112 section 9.3). Each call has a key,
 * with which there is at most one connection. Thread-safe.
 */
final class ReusableConnections {

  /** Shorter than the servers' own limits, so that none closes a connection that is just used. */
  private static final long IDLE_MILLIS = 1_000;

  private final Map<String, Channel> idle = new ConcurrentHashMap<>();

  /** Returns the connection for a call, which has it alone from now on. */
  Optional<Channel> take(String key) {
    return Optional.ofNullable(idle.remove(key)).filter(Channel::isActive);
  }

  /** Prepares a taken connection for its call; on its own thread. */
  static void prepare(Channel connection) {
    connection.pipeline().remove(Idle.class);
  }

  /** Keeps a connection without a call; on its own thread. */
  void keep(String key, Channel connection) {
    connection.config().setAutoRead(true);
    connection.pipeline().addLast(new Idle(key));
    if (idle.putIfAbsent(key, connection) != null) {
      connection.close();
    }
  }

  /** Waits for the next call, or for the end. */
  private final class Idle extends ChannelInboundHandlerAdapter {

    private final String key;

    Idle(String key) {
      this.key = key;
    }

    @Override
    public void handlerAdded(ChannelHandlerContext context) {
      context.executor().schedule(() -> closeIfIdle(context), IDLE_MILLIS, TimeUnit.MILLISECONDS);
    }

    /** A later call may have taken the connection, and even given it back. */
    private void closeIfIdle(ChannelHandlerContext context) {
      if (!context.isRemoved() && idle.remove(key, context.channel())) {
        context.close();
      }
    }

    @Override
    public void channelInactive(ChannelHandlerContext context) {
      idle.remove(key, context.channel());
      context.fireChannelInactive();
    }

    /** A response without a request, such as 408 before the server closes. */
    @Override
    public void channelRead(ChannelHandlerContext context, Object unexpected) {
      ReferenceCountUtil.release(unexpected);
      idle.remove(key, context.channel());
      context.close();
    }

    @Override
    public void exceptionCaught(ChannelHandlerContext context, Throwable cause) {
      idle.remove(key, context.channel());
      context.close();
    }
  }
}
