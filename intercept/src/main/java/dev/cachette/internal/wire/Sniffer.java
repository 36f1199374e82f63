package dev.cachette.internal.wire;

import dev.cachette.internal.tls.ServerTls;
import io.netty.buffer.ByteBuf;
import io.netty.channel.ChannelHandlerContext;
import io.netty.channel.ChannelPipeline;
import io.netty.handler.codec.ByteToMessageDecoder;
import io.netty.handler.ssl.SslHandler;
import java.util.List;

/**
 * Looks at the first byte of a connection: a TLS handshake record begins with 22, HTTP does not.
 */
final class Sniffer extends ByteToMessageDecoder {

  private static final int TLS_HANDSHAKE = 22;

  private final Destination destination;
  private final ServerTls tls;
  private final HttpPipeline http;

  Sniffer(Destination destination, ServerTls tls, HttpPipeline http) {
    this.destination = destination;
    this.tls = tls;
    this.http = http;
  }

  @Override
  protected void decode(ChannelHandlerContext context, ByteBuf in, List<Object> out) {
    if (!in.isReadable()) {
      return;
    }
    ChannelPipeline pipeline = context.pipeline();
    boolean secure = in.getUnsignedByte(in.readerIndex()) == TLS_HANDSHAKE;
    if (secure) {
      pipeline.addLast(
          new SslHandler(tls.engineFor(destination.host(), destination.port(), "http/1.1")));
      pipeline.addLast(new HandshakeReport(destination, http.responder()));
    }
    http.addTo(pipeline, destination, secure);
    // Hands the bytes that it has cumulated on to those just added.
    pipeline.remove(this);
  }
}
