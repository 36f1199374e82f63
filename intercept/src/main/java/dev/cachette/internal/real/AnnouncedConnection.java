// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.real;

import dev.cachette.internal.engine.RealCallObserver;
import io.netty.channel.Channel;
import io.netty.channel.ChannelHandlerContext;
import io.netty.channel.ChannelInboundHandlerAdapter;
import io.netty.channel.ChannelInitializer;
import java.net.InetSocketAddress;
import java.util.concurrent.CompletableFuture;

/** A connection that sends nothing before its observer knows where it comes from. */
final class AnnouncedConnection extends ChannelInitializer<Channel> {

  private final Connection handlers;
  private final RealCallObserver observer;

  AnnouncedConnection(Connection handlers, RealCallObserver observer) {
    this.handlers = handlers;
    this.observer = observer;
  }

  @Override
  protected void initChannel(Channel channel) {
    channel.pipeline().addLast(new Announcing());
    channel.pipeline().addLast(handlers);
  }

  private final class Announcing extends ChannelInboundHandlerAdapter {

    /** The observer may wait, which this thread must not. */
    @Override
    public void channelActive(ChannelHandlerContext context) {
      int port = ((InetSocketAddress) context.channel().localAddress()).getPort();
      CompletableFuture.runAsync(() -> observer.connectedFrom(port))
          .whenComplete((done, failed) -> context.executor().execute(context::fireChannelActive));
    }
  }
}
