package dev.cachette.internal.wire;

import io.netty.buffer.Unpooled;
import io.netty.channel.Channel;
import io.netty.channel.ChannelFuture;
import io.netty.channel.ChannelFutureListener;
import io.netty.channel.ChannelHandlerContext;
import io.netty.channel.ChannelOption;
import io.netty.channel.ChannelPipeline;
import io.netty.handler.codec.http.HttpServerCodec;
import io.netty.handler.codec.http2.DefaultHttp2ResetFrame;
import io.netty.handler.codec.http2.Http2Error;
import io.netty.handler.codec.http2.Http2FrameCodec;
import io.netty.handler.codec.http2.Http2StreamChannel;
import io.netty.util.AttributeKey;

/**
 * The client of a call, to disturb it. Actions on the connection affect all HTTP/2 streams that it
 * carries.
 *
 * @param context of the handler that answers the call
 */
record Peer(ChannelHandlerContext context) {

  private static final AttributeKey<Integer> NUMBER = AttributeKey.valueOf("cachette.number");

  /** Assigns a number to a connection. */
  static void number(Channel connection, int number) {
    connection.attr(NUMBER).set(number);
  }

  /** Returns the number of the connection. */
  int number() {
    return connection().attr(NUMBER).get();
  }

  boolean isHttp2() {
    return context.channel() instanceof Http2StreamChannel;
  }

  /** Closes the connection by TCP RST, without a TLS close_notify. */
  void reset() {
    Channel connection = connection();
    connection.config().setOption(ChannelOption.SO_LINGER, 0);
    connection.pipeline().firstContext().close();
  }

  /** Closes the connection normally, when everything is sent. */
  void close() {
    connection().writeAndFlush(Unpooled.EMPTY_BUFFER).addListener(ChannelFutureListener.CLOSE);
  }

  /** Sends raw bytes instead of HTTP; encrypted if the connection uses TLS. */
  ChannelFuture raw(byte[] bytes) {
    ChannelPipeline pipeline = connection().pipeline();
    ChannelHandlerContext codec =
        isHttp2()
            ? pipeline.context(Http2FrameCodec.class)
            : pipeline.context(HttpServerCodec.class);
    return codec.writeAndFlush(Unpooled.wrappedBuffer(bytes));
  }

  /** Resets the HTTP/2 stream of the call only. */
  ChannelFuture resetStream() {
    return context
        .pipeline()
        .firstContext()
        .writeAndFlush(new DefaultHttp2ResetFrame(Http2Error.INTERNAL_ERROR));
  }

  /** Tells the client that this call was not processed, and that no other will be. */
  void goAway() {
    Http2StreamChannel stream = (Http2StreamChannel) context.channel();
    ChannelHandlerContext codec = connection().pipeline().context(Http2FrameCodec.class);
    ((Http2FrameCodec) codec.handler())
        .goAway(
            codec,
            Math.max(0, stream.stream().id() - 2),
            Http2Error.NO_ERROR.code(),
            Unpooled.EMPTY_BUFFER,
            codec.newPromise());
    codec.flush();
    close();
  }

  private Channel connection() {
    return isHttp2() ? context.channel().parent() : context.channel();
  }
}
