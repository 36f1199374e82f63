// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import io.netty.buffer.Unpooled;
import io.netty.channel.Channel;
import io.netty.channel.ChannelHandlerContext;
import io.netty.channel.ChannelPipeline;
import io.netty.channel.ServerChannel;
import io.netty.handler.codec.http.HttpDecoderConfig;
import io.netty.handler.codec.http.HttpServerCodec;
import java.nio.charset.StandardCharsets;

/** The handlers of HTTP connections: the codec of their version, then the common ones. */
final class HttpPipeline {

  private static final int LONGEST_LINE = 64 * 1024;
  private static final int LARGEST_HEAD = 256 * 1024;
  private static final byte[] TUNNEL =
      "HTTP/1.1 200 Connection established\r\n\r\n".getBytes(StandardCharsets.US_ASCII);

  private HttpPipeline() {}

  /** HTTP/1.1 (RFC 9112). */
  static void addHttp1(
      ChannelPipeline pipeline, Destination destination, boolean secure, Site site) {
    HttpDecoderConfig lenient =
        new HttpDecoderConfig()
            .setMaxInitialLineLength(LONGEST_LINE)
            .setMaxHeaderSize(LARGEST_HEAD);
    pipeline.addLast(new HttpServerCodec(lenient));
    addExchanges(pipeline, destination, secure, site);
  }

  static void addExchanges(
      ChannelPipeline pipeline, Destination destination, boolean secure, Site site) {
    Channel stream = pipeline.channel();
    pipeline.addLast(
        new RequestNote(stream.parent() instanceof ServerChannel ? stream : stream.parent()));
    pipeline.addLast(new BodiesToFiles(destination, secure, site));
    pipeline.addLast(new PackedBodies(destination, site));
    pipeline.addLast(new WholeRequests(destination, site));
    pipeline.addLast(new CallHandler(destination, secure, site));
  }

  /** Returns true if a connection of HTTP/1.1 is idle, and its client may send a request. */
  static boolean isIdle(ChannelPipeline pipeline) {
    CallHandler exchanges = pipeline.get(CallHandler.class);
    return pipeline.channel().isActive()
        && pipeline.get(HttpServerCodec.class) != null
        && exchanges != null
        && exchanges.isKept()
        && pipeline.get(LingeringClose.class) == null
        && !pipeline.get(RequestNote.class).isArriving();
  }

  /** Removes what {@link #addExchanges} has added. */
  static void removeExchanges(ChannelPipeline pipeline) {
    pipeline.remove(RequestNote.class);
    pipeline.remove(BodiesToFiles.class);
    pipeline.remove(PackedBodies.class);
    pipeline.remove(WholeRequests.class);
    pipeline.remove(CallHandler.class);
  }

  /** Answers a CONNECT, and treats what follows as a connection to another destination. */
  static void becomeTunnel(ChannelHandlerContext context, Destination wanted, Site site) {
    ChannelPipeline pipeline = context.pipeline();
    ChannelHandlerContext codec = pipeline.context(HttpServerCodec.class);
    if (codec == null) {
      throw new IllegalArgumentException("CONNECT over HTTP/2 is not supported");
    }
    codec.writeAndFlush(Unpooled.wrappedBuffer(TUNNEL));
    pipeline.addLast(new Sniffer(wanted, site));
    pipeline.remove(HttpServerCodec.class);
    removeExchanges(pipeline);
  }
}
