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
 * The other side of a call, as far as one can be rude to it. What is done to the connection is done
 * to the whole of it, also where it carries several HTTP/2 streams.
 *
 * @param context of the handler that answers the call
 */
record Peer(ChannelHandlerContext context) {

  private static final AttributeKey<Integer> NUMBER = AttributeKey.valueOf("cachette.number");

  /** Gives a connection its number. */
  static void number(Channel connection, int number) {
    connection.attr(NUMBER).set(number);
  }

  /** The number of the connection. */
  int number() {
    return connection().attr(NUMBER).get();
  }

  boolean isHttp2() {
    return context.channel() instanceof Http2StreamChannel;
  }

  /** Ends the connection by TCP RST, past TLS, which would say goodbye first. */
  void reset() {
    Channel connection = connection();
    connection.config().setOption(ChannelOption.SO_LINGER, 0);
    connection.pipeline().firstContext().close();
  }

  /** Ends the connection in order, when all is sent that was written. */
  void close() {
    connection().writeAndFlush(Unpooled.EMPTY_BUFFER).addListener(ChannelFutureListener.CLOSE);
  }

  /** Sends bytes as they are, past HTTP; by TLS where that is spoken. */
  ChannelFuture raw(byte[] bytes) {
    ChannelPipeline pipeline = connection().pipeline();
    ChannelHandlerContext codec =
        isHttp2()
            ? pipeline.context(Http2FrameCodec.class)
            : pipeline.context(HttpServerCodec.class);
    return codec.writeAndFlush(Unpooled.wrappedBuffer(bytes));
  }

  /** Resets the HTTP/2 stream of the call alone. */
  ChannelFuture resetStream() {
    return context
        .pipeline()
        .firstContext()
        .writeAndFlush(new DefaultHttp2ResetFrame(Http2Error.INTERNAL_ERROR));
  }

  /** Says that the call was not processed, and that no other will be. */
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
