// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import dev.cachette.answer.Fault;
import io.netty.buffer.ByteBuf;
import io.netty.buffer.ByteBufUtil;
import io.netty.channel.ChannelHandlerContext;
import io.netty.channel.ChannelPipeline;
import io.netty.handler.codec.ByteToMessageDecoder;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;

/**
 * Detects the protocol of a connection from its first bytes: a TLS handshake record begins with 22,
 * HTTP/2 with its preface, HTTP/1.1 with a method. Anything else, or nothing, is not HTTP.
 */
final class Sniffer extends ByteToMessageDecoder {

  private static final int TLS_HANDSHAKE = 22;
  private static final byte[] PREFACE = "PRI * HTTP/2.0".getBytes(StandardCharsets.US_ASCII);
  private static final String OTHERS_OF_TOKEN = "!#$%&'*+-.^_`|~";

  /**
   * If no HTTP is expected there, a client that sends nothing for this long waits for a greeting.
   */
  private static final long PATIENCE_SECONDS = 2;

  private final Destination destination;
  private final Site site;
  private @Nullable Future<?> patience;

  Sniffer(Destination destination, Site site) {
    this.destination = destination;
    this.site = site;
  }

  @Override
  public void handlerAdded(ChannelHandlerContext context) {
    boolean expected =
        destination.isOurs()
            || site.encounters().expectsHttp(destination.host(), destination.port());
    if (!expected) {
      patience =
          context.executor().schedule(() -> silent(context), PATIENCE_SECONDS, TimeUnit.SECONDS);
    }
  }

  @Override
  protected void handlerRemoved0(ChannelHandlerContext context) {
    if (patience != null) {
      patience.cancel(false);
    }
  }

  @Override
  protected void decode(ChannelHandlerContext context, ByteBuf in, List<Object> out) {
    if (!in.isReadable()) {
      return;
    }
    int first = in.getUnsignedByte(in.readerIndex());
    if (first == TLS_HANDSHAKE) {
      Optional<Fault> fault = site.encounters().atHandshake(destination.host(), destination.port());
      context.pipeline().addLast(Handshakes.handlers(destination, site, fault));
    } else if (isPreface(in)) {
      if (in.readableBytes() < PREFACE.length) {
        return;
      }
      Http2Streams.addTo(context.pipeline(), destination, false, site);
    } else if (isToken(first) || first == '\r' || first == '\n') {
      HttpPipeline.addHttp1(context.pipeline(), destination, false, site);
    } else {
      String bytes = ByteBufUtil.hexDump(in, in.readerIndex(), Math.min(8, in.readableBytes()));
      in.skipBytes(in.readableBytes());
      refuse(context, "begins with the bytes " + bytes + ", so it is not HTTP");
      return;
    }
    // Prepends the bytes that it has collected to those just added.
    context.pipeline().remove(this);
  }

  private void silent(ChannelHandlerContext context) {
    ChannelPipeline pipeline = context.pipeline();
    if (pipeline.context(this) != null && context.channel().isActive()) {
      refuse(context, "sends nothing, so it waits for a greeting, which HTTP clients do not");
    }
  }

  private void refuse(ChannelHandlerContext context, String what) {
    site.responder().refused(NotHttp.summary(destination), NotHttp.explanation(destination, what));
    context.channel().close();
  }

  /** Returns true if the bytes are the HTTP/2 preface, or a prefix of it. */
  private static boolean isPreface(ByteBuf in) {
    int length = Math.min(in.readableBytes(), PREFACE.length);
    for (int at = 0; at < length; at++) {
      if (in.getByte(in.readerIndex() + at) != PREFACE[at]) {
        return false;
      }
    }
    return true;
  }

  /** Returns true if a method can begin with it (RFC 9110 section 5.6.2). */
  private static boolean isToken(int character) {
    return character >= '0' && character <= '9'
        || character >= 'A' && character <= 'Z'
        || character >= 'a' && character <= 'z'
        || OTHERS_OF_TOKEN.indexOf(character) >= 0;
  }
}
