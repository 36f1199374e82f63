// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import io.netty.channel.Channel;
import io.netty.channel.ChannelHandlerContext;
import io.netty.channel.ChannelInboundHandlerAdapter;
import io.netty.handler.codec.http.HttpRequest;
import io.netty.handler.codec.http.LastHttpContent;

/** Notes that a connection has had a request, and whether one is arriving. */
final class RequestNote extends ChannelInboundHandlerAdapter {

  private final Channel connection;
  private boolean arriving;

  RequestNote(Channel connection) {
    this.connection = connection;
  }

  @Override
  public void channelRead(ChannelHandlerContext context, Object message) {
    if (message instanceof HttpRequest) {
      Peer.requested(connection);
      arriving = true;
    }
    if (message instanceof LastHttpContent) {
      arriving = false;
    }
    context.fireChannelRead(message);
  }

  /** Returns true if a request has arrived in part. */
  boolean isArriving() {
    return arriving;
  }
}
