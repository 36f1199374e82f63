// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import dev.cachette.http.Response;
import io.netty.buffer.Unpooled;
import io.netty.channel.ChannelHandlerContext;
import io.netty.channel.ChannelInboundHandlerAdapter;
import io.netty.handler.codec.http2.DefaultHttp2DataFrame;
import io.netty.handler.codec.http2.DefaultHttp2Headers;
import io.netty.handler.codec.http2.DefaultHttp2HeadersFrame;
import io.netty.handler.codec.http2.Http2Headers;
import io.netty.handler.codec.http2.Http2HeadersFrame;
import io.netty.util.ReferenceCountUtil;

/**
 * Refuses an HTTP/2 request without a method or path (RFC 9113 section 8.3.1), which the codec
 * would take for trailers, and never answer.
 */
final class RequestHeads extends ChannelInboundHandlerAdapter {

  private final Destination destination;
  private final Site site;
  private boolean refused;

  RequestHeads(Destination destination, Site site) {
    this.destination = destination;
    this.site = site;
  }

  @Override
  public void channelRead(ChannelHandlerContext context, Object message) {
    if (refused) {
      ReferenceCountUtil.release(message);
    } else if (message instanceof Http2HeadersFrame head && isMalformed(head.headers())) {
      refused = true;
      refuse(context, head.headers().method() == null ? ":method" : ":path");
    } else {
      if (message instanceof Http2HeadersFrame) {
        // Later ones are trailers.
        context.pipeline().remove(this);
      }
      context.fireChannelRead(message);
    }
  }

  private static boolean isMalformed(Http2Headers head) {
    return head.method() == null || head.path() == null && !"CONNECT".contentEquals(head.method());
  }

  private void refuse(ChannelHandlerContext context, String missing) {
    String what = "a request without " + missing + ", to " + destination;
    Response response =
        site.responder()
            .refused(
                what,
                String.format(
                    "The HTTP/2 request that arrived for %s has no %s (RFC 9113 section 8.3.1).\n",
                    destination, missing));
    Http2Headers headers = new DefaultHttp2Headers().status(String.valueOf(response.status()));
    response.headers().stream().forEach(each -> headers.add(each.name(), each.value()));
    context.write(new DefaultHttp2HeadersFrame(headers, false));
    context.writeAndFlush(
        new DefaultHttp2DataFrame(Unpooled.wrappedBuffer(response.body().buffer()), true));
  }
}
