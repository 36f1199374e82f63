// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Response;
import dev.cachette.internal.answer.FeedReader;
import dev.cachette.internal.engine.RealResponse;
import io.netty.buffer.ByteBuf;
import io.netty.buffer.ByteBufUtil;
import io.netty.buffer.Unpooled;
import io.netty.channel.ChannelHandler;
import io.netty.channel.ChannelHandlerContext;
import io.netty.channel.ChannelInboundHandlerAdapter;
import io.netty.channel.ChannelPipeline;
import io.netty.handler.codec.http.DefaultFullHttpResponse;
import io.netty.handler.codec.http.HttpHeaderNames;
import io.netty.handler.codec.http.HttpHeaderValues;
import io.netty.handler.codec.http.HttpResponseStatus;
import io.netty.handler.codec.http.HttpServerCodec;
import io.netty.handler.codec.http.HttpVersion;
import io.netty.util.ReferenceCountUtil;

/**
 * A connection of a client that speaks another protocol with the real service, after an upgrade
 * (RFC 9110 section 7.8): bytes are passed on in both directions.
 */
final class UpgradedConnection extends ChannelInboundHandlerAdapter {

  private final RealResponse.Upgraded service;
  private Runnable leave = () -> {};

  private UpgradedConnection(RealResponse.Upgraded service) {
    this.service = service;
  }

  /**
   * Sends the response, and replaces the handlers of HTTP.
   *
   * @param protocol the new protocol, as the request names it
   */
  static void begin(
      ChannelHandlerContext context,
      Response response,
      String protocol,
      RealResponse.Upgraded service) {
    DefaultFullHttpResponse written =
        new DefaultFullHttpResponse(
            HttpVersion.HTTP_1_1, HttpResponseStatus.SWITCHING_PROTOCOLS, Unpooled.EMPTY_BUFFER);
    response.headers().forEach(it -> written.headers().add(it.name(), it.value()));
    written.headers().set(HttpHeaderNames.CONNECTION, HttpHeaderValues.UPGRADE);
    written.headers().set(HttpHeaderNames.UPGRADE, protocol);
    context.writeAndFlush(written);
    ChannelPipeline pipeline = context.pipeline();
    ChannelHandler exchanges = context.handler();
    UpgradedConnection upgraded = new UpgradedConnection(service);
    pipeline.addLast(upgraded);
    pipeline.remove(HttpServerCodec.class);
    pipeline.remove(BodiesToFiles.class);
    pipeline.remove(PackedBodies.class);
    pipeline.remove(WholeRequests.class);
    pipeline.remove(exchanges);
    upgraded.follow(pipeline.context(upgraded));
  }

  private void follow(ChannelHandlerContext context) {
    leave =
        service.read(
            new FeedReader() {
              @Override
              public void piece(Body piece) {
                context
                    .writeAndFlush(Unpooled.wrappedBuffer(piece.bytes()))
                    .addListener(written -> service.passedOn());
              }

              @Override
              public void end(Headers trailers) {
                LingeringClose.begin(context.channel());
              }

              @Override
              public void broken() {
                new Peer(context).reset();
              }
            });
  }

  @Override
  public void channelRead(ChannelHandlerContext context, Object received) {
    try {
      if (received instanceof ByteBuf bytes) {
        service.send(ByteBufUtil.getBytes(bytes));
      }
    } finally {
      ReferenceCountUtil.release(received);
    }
  }

  @Override
  public void channelInactive(ChannelHandlerContext context) {
    leave.run();
    context.fireChannelInactive();
  }

  @Override
  public void exceptionCaught(ChannelHandlerContext context, Throwable cause) {
    context.close();
  }
}
