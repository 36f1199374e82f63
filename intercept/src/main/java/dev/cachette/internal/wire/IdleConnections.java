// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import io.netty.channel.ChannelHandlerContext;
import io.netty.channel.ChannelInboundHandlerAdapter;
import io.netty.channel.ChannelPipeline;
import io.netty.handler.codec.http2.Http2FrameCodec;
import io.netty.handler.timeout.IdleState;
import io.netty.handler.timeout.IdleStateEvent;
import io.netty.handler.timeout.IdleStateHandler;

/**
 * Closes connections on which nothing arrives for a while, and nothing is to be sent: a server that
 * runs for days must not keep those of clients that are gone, or that stop within a request.
 */
final class IdleConnections extends ChannelInboundHandlerAdapter {

  private static final int SECONDS = 60;

  private IdleConnections() {}

  static void addTo(ChannelPipeline pipeline) {
    pipeline.addLast(new IdleStateHandler(SECONDS, 0, 0), new IdleConnections());
  }

  @Override
  public void userEventTriggered(ChannelHandlerContext context, Object event) {
    if (event instanceof IdleStateEvent idle && idle.state() == IdleState.READER_IDLE) {
      end(context);
    } else {
      context.fireUserEventTriggered(event);
    }
  }

  private static void end(ChannelHandlerContext context) {
    ChannelPipeline pipeline = context.pipeline();
    Http2FrameCodec http2 = pipeline.get(Http2FrameCodec.class);
    CallHandler exchanges = pipeline.get(CallHandler.class);
    boolean answering =
        http2 != null
            ? http2.connection().numActiveStreams() > 0
            : exchanges != null && exchanges.isBusy();
    if (!answering) {
      PackedBodies body = pipeline.get(PackedBodies.class);
      if (body != null && body.isIncomplete()) {
        body.refuseLate(pipeline.context(body), SECONDS);
      } else {
        context.close();
      }
    }
  }
}
