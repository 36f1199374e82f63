// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import dev.cachette.http.Response;
import io.netty.buffer.ByteBuf;
import io.netty.buffer.Unpooled;
import io.netty.channel.ChannelFutureListener;
import io.netty.channel.ChannelHandlerContext;
import io.netty.channel.ChannelInboundHandlerAdapter;
import io.netty.handler.codec.http.DefaultHttpContent;
import io.netty.handler.codec.http.DefaultLastHttpContent;
import io.netty.handler.codec.http.HttpContent;
import io.netty.handler.codec.http.HttpRequest;
import io.netty.handler.codec.http.LastHttpContent;
import io.netty.util.ReferenceCountUtil;
import org.jspecify.annotations.Nullable;

/**
 * Copies the pieces of a body into one buffer. A piece would keep the whole buffer that it was read
 * into: a thousand clients that send a byte at a time would fill the memory. What all of them hold
 * is limited; a body that comes in one piece, as small ones do, is not affected.
 */
final class PackedBodies extends ChannelInboundHandlerAdapter {

  private static final int REQUEST_TIMEOUT = 408;
  private static final int UNAVAILABLE = 503;

  private final Destination destination;
  private final Site site;
  private @Nullable ByteBuf packed;
  private boolean refused;

  PackedBodies(Destination destination, Site site) {
    this.destination = destination;
    this.site = site;
  }

  @Override
  public void channelRead(ChannelHandlerContext context, Object message) {
    if (message instanceof HttpRequest || !(message instanceof HttpContent content)) {
      context.fireChannelRead(message);
    } else if (packed == null && content instanceof LastHttpContent && !refused) {
      context.fireChannelRead(message);
    } else {
      try {
        add(context, content);
      } finally {
        ReferenceCountUtil.release(content);
      }
    }
  }

  private void add(ChannelHandlerContext context, HttpContent content) {
    if (refused) {
      return;
    }
    ByteBuf piece = content.content();
    if (packed == null) {
      packed = Unpooled.buffer(piece.readableBytes());
    }
    site.bodies().addAndGet(piece.readableBytes());
    packed.writeBytes(piece);
    if (content instanceof LastHttpContent last) {
      DefaultLastHttpContent whole = new DefaultLastHttpContent(taken());
      whole.trailingHeaders().set(last.trailingHeaders());
      whole.setDecoderResult(last.decoderResult());
      context.fireChannelRead(whole);
    } else if (packed.readableBytes() > site.maxRequestBody()) {
      // Refused by the next handler.
      context.fireChannelRead(new DefaultHttpContent(taken()));
    } else if (site.bodies().get() > Site.MOST_IN_BODIES) {
      refuse(
          context,
          UNAVAILABLE,
          String.format(
              "The bodies of requests that are still arriving take more than %,d bytes, a quarter"
                  + " of the memory of this JVM.\n\nFix: give it more memory (-Xmx), or make fewer"
                  + " calls at once.\n",
              Site.MOST_IN_BODIES));
    }
  }

  /** Returns true if a part of a body has arrived, and the rest has not. */
  boolean isIncomplete() {
    return packed != null;
  }

  /** Refuses a request whose rest does not arrive. */
  void refuseLate(ChannelHandlerContext context, int seconds) {
    refuse(
        context,
        REQUEST_TIMEOUT,
        String.format(
            "The rest of a request to %s did not arrive in %d s.\n", destination, seconds));
  }

  private void refuse(ChannelHandlerContext context, int status, String explanation) {
    refused = true;
    drop();
    Response response =
        site.responder().refused("a request that did not arrive completely", explanation, status);
    context
        .writeAndFlush(Responses.whole(response, false))
        .addListener(ChannelFutureListener.CLOSE);
  }

  private ByteBuf taken() {
    ByteBuf whole = packed;
    packed = null;
    site.bodies().addAndGet(-whole.readableBytes());
    return whole;
  }

  @Override
  public void channelInactive(ChannelHandlerContext context) {
    drop();
    context.fireChannelInactive();
  }

  @Override
  public void handlerRemoved(ChannelHandlerContext context) {
    drop();
  }

  private void drop() {
    if (packed != null) {
      taken().release();
    }
  }
}
