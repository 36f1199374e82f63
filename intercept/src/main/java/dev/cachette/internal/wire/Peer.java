// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import dev.cachette.http.Request;
import dev.cachette.internal.engine.Maker;
import io.netty.buffer.Unpooled;
import io.netty.channel.Channel;
import io.netty.channel.ChannelFuture;
import io.netty.channel.ChannelHandlerContext;
import io.netty.channel.ChannelOption;
import io.netty.channel.ChannelPipeline;
import io.netty.handler.codec.http.HttpServerCodec;
import io.netty.handler.codec.http2.DefaultHttp2ResetFrame;
import io.netty.handler.codec.http2.Http2Error;
import io.netty.handler.codec.http2.Http2FrameCodec;
import io.netty.handler.codec.http2.Http2StreamChannel;
import io.netty.handler.ssl.SslHandler;
import io.netty.util.AttributeKey;
import java.net.InetSocketAddress;
import java.security.cert.X509Certificate;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.regex.Pattern;
import javax.net.ssl.SSLPeerUnverifiedException;

/**
 * The client of a call, to disturb it. Actions on the connection affect all HTTP/2 streams that it
 * carries.
 *
 * @param context of the handler that answers the call
 */
record Peer(ChannelHandlerContext context) {

  /** A client that fails the current call if it receives GOAWAY before it has read the response. */
  private static final Pattern GIVING_UP = Pattern.compile("Java-http-client/");

  /** How long clients may take to close a connection that will answer nothing else. */
  private static final long PATIENCE_MILLIS = 500;

  private static final AttributeKey<Boolean> REQUESTED = AttributeKey.valueOf("cachette.requested");

  private static final AttributeKey<Integer> NUMBER = AttributeKey.valueOf("cachette.number");

  /** Assigns a number to a connection. */
  static void number(Channel connection, int number) {
    connection.attr(NUMBER).set(number);
  }

  /** Notes that a request has begun to arrive on a connection. */
  static void requested(Channel connection) {
    connection.attr(REQUESTED).set(true);
  }

  /** Returns true if a connection has had a request. */
  static boolean isRequested(Channel connection) {
    return connection.attr(REQUESTED).get() != null;
  }

  /** Returns the number of the connection. */
  int number() {
    return connection().attr(NUMBER).get();
  }

  /** Returns the client's port. */
  int port() {
    return connection().remoteAddress() instanceof InetSocketAddress address
        ? address.getPort()
        : 0;
  }

  /** Returns who made the call. */
  Maker maker(ClientHooks clients) {
    if (!isHttp2()) {
      return clients.at(port());
    }
    Maker ofStream = clients.at(port(), ((Http2StreamChannel) context.channel()).stream().id());
    return ofStream.thread().isPresent() ? ofStream : clients.at(port()).onSharedConnection();
  }

  /** Returns the certificate that the client has sent, if it was asked and has one. */
  Optional<X509Certificate> certificate() {
    SslHandler tls = connection().pipeline().get(SslHandler.class);
    if (tls == null || !tls.engine().getWantClientAuth()) {
      return Optional.empty();
    }
    try {
      return Optional.of((X509Certificate) tls.engine().getSession().getPeerCertificates()[0]);
    } catch (SSLPeerUnverifiedException none) {
      return Optional.empty();
    }
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
    LingeringClose.begin(connection());
  }

  /**
   * Closes the connection after its last response. A client that was told so by GOAWAY closes it
   * itself: some fail the call that is just answered if the end overtakes their last flush.
   */
  void closeAfterResponse() {
    if (isHttp2() && http2().connection().goAwaySent()) {
      connection().eventLoop().schedule(this::closeIdle, PATIENCE_MILLIS, TimeUnit.MILLISECONDS);
    } else {
      close();
    }
  }

  private void closeIdle() {
    if (connection().isActive() && http2().connection().numActiveStreams() > 0) {
      closeAfterResponse();
    } else {
      close();
    }
  }

  private Http2FrameCodec http2() {
    return connection().pipeline().get(Http2FrameCodec.class);
  }

  /**
   * Tells an HTTP/2 client that no later call will be processed on this connection (RFC 9113
   * section 6.8), with the next flush. To be called between writing and flushing the end of a
   * response: later, the client may have begun another call. The client of the JDK is told by the
   * end of the connection alone, because it gives up a call that it has not read completely.
   */
  void announceClose(Request request) {
    boolean givesUp =
        request
            .headers()
            .first("user-agent")
            .filter(agent -> GIVING_UP.matcher(agent).lookingAt())
            .isPresent();
    if (isHttp2() && !givesUp && !http2().connection().goAwaySent()) {
      goAway(http2().connection().remote().lastStreamCreated());
    }
  }

  /** Writes, but does not flush, that streams after this one are not processed. */
  private void goAway(int lastStream) {
    ChannelHandlerContext codec = connection().pipeline().context(Http2FrameCodec.class);
    http2()
        .goAway(
            codec,
            lastStream,
            Http2Error.NO_ERROR.code(),
            Unpooled.EMPTY_BUFFER,
            codec.newPromise());
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
    int own = ((Http2StreamChannel) context.channel()).stream().id();
    goAway(Math.max(0, own - 2));
    connection().pipeline().context(Http2FrameCodec.class).flush();
    closeAfterResponse();
  }

  /** Returns the connection; that of the stream, with HTTP/2. */
  Channel connection() {
    return isHttp2() ? context.channel().parent() : context.channel();
  }
}
