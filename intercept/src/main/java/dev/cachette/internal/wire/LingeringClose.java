// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import io.netty.buffer.Unpooled;
import io.netty.channel.Channel;
import io.netty.channel.ChannelFuture;
import io.netty.channel.ChannelHandlerContext;
import io.netty.channel.ChannelInboundHandlerAdapter;
import io.netty.channel.socket.DuplexChannel;
import io.netty.handler.ssl.SslHandler;
import io.netty.util.ReferenceCountUtil;
import java.util.concurrent.TimeUnit;

/**
 * Closes a connection in stages (RFC 9112 section 9.6): it ends the sending direction, then reads
 * and discards until the client closes, too. If the connection were closed at once, anything that
 * the client still sends, such as an HTTP/2 SETTINGS acknowledgement, would be answered by TCP RST,
 * which makes the client lose the last response if it has not read it yet.
 */
final class LingeringClose extends ChannelInboundHandlerAdapter {

  /** Clients with a pool may keep their direction open for as long as they like. */
  private static final long PATIENCE_SECONDS = 2;

  private LingeringClose() {}

  /** Begins to close a connection, after everything written so far. Thread-safe. */
  static void begin(Channel connection) {
    if (!connection.eventLoop().inEventLoop()) {
      connection.eventLoop().execute(() -> begin(connection));
      return;
    }
    if (!connection.isActive() || connection.pipeline().get(LingeringClose.class) != null) {
      return;
    }
    connection.pipeline().addFirst(new LingeringClose());
    SslHandler tls = connection.pipeline().get(SslHandler.class);
    ChannelFuture last =
        tls == null ? connection.writeAndFlush(Unpooled.EMPTY_BUFFER) : tls.closeOutbound();
    last.addListener(written -> end((DuplexChannel) connection));
    connection.config().setAutoRead(true);
    var abandoning =
        connection
            .eventLoop()
            .schedule(() -> abandon(connection), PATIENCE_SECONDS, TimeUnit.SECONDS);
    connection.closeFuture().addListener(closed -> abandoning.cancel(false));
  }

  private static void end(DuplexChannel connection) {
    if (connection.isInputShutdown()) {
      abandon(connection);
    } else {
      connection.shutdownOutput();
    }
  }

  private static void abandon(Channel connection) {
    // Past the codecs, which would send more.
    connection.pipeline().firstContext().close();
  }

  @Override
  public void channelRead(ChannelHandlerContext context, Object bytes) {
    ReferenceCountUtil.release(bytes);
  }
}
