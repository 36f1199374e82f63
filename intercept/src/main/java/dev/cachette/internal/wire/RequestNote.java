package dev.cachette.internal.wire;

import io.netty.channel.Channel;
import io.netty.channel.ChannelHandlerContext;
import io.netty.channel.ChannelInboundHandlerAdapter;

/** Notes the first request of a connection, and is gone then. */
final class RequestNote extends ChannelInboundHandlerAdapter {

  private final Channel connection;

  RequestNote(Channel connection) {
    this.connection = connection;
  }

  @Override
  public void channelRead(ChannelHandlerContext context, Object message) {
    Peer.requested(connection);
    context.pipeline().remove(this);
    context.fireChannelRead(message);
  }
}
