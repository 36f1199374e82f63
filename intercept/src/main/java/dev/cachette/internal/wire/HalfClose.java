// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import io.netty.channel.ChannelHandlerContext;
import io.netty.channel.ChannelInboundHandlerAdapter;
import io.netty.channel.socket.ChannelInputShutdownEvent;

/**
 * Handles the end of what a client sends. It may still read the answer, as {@code printf ... | nc}
 * does (RFC 9112 section 9.6), or have gone, which looks the same from here.
 */
final class HalfClose extends ChannelInboundHandlerAdapter {

  @Override
  public void userEventTriggered(ChannelHandlerContext context, Object event) {
    if (event instanceof ChannelInputShutdownEvent) {
      CallHandler exchanges = context.pipeline().get(CallHandler.class);
      boolean readsOn =
          exchanges != null && exchanges.inputEnded(context.pipeline().context(exchanges));
      if (!readsOn) {
        context.close();
        return;
      }
    }
    context.fireUserEventTriggered(event);
  }
}
