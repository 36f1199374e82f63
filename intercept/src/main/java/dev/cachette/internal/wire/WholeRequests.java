// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import io.netty.channel.ChannelFutureListener;
import io.netty.channel.ChannelHandlerContext;
import io.netty.channel.ChannelPipeline;
import io.netty.handler.codec.http.FullHttpMessage;
import io.netty.handler.codec.http.FullHttpResponse;
import io.netty.handler.codec.http.HttpMessage;
import io.netty.handler.codec.http.HttpObjectAggregator;
import io.netty.handler.codec.http.HttpResponse;
import io.netty.handler.codec.http.HttpResponseStatus;

/** Assembles the pieces of a request, and rejects one that is too large to hold. */
final class WholeRequests extends HttpObjectAggregator {

  private static final int TOO_LARGE = 413;

  private final Destination destination;
  private final Site site;

  WholeRequests(Destination destination, Site site) {
    super(site.maxRequestBody(), true);
    this.destination = destination;
    this.site = site;
  }

  /** If the client asks first (Expect: 100-continue), it is rejected with the same reason. */
  @Override
  protected Object newContinueResponse(HttpMessage start, int maximum, ChannelPipeline pipeline) {
    Object response = super.newContinueResponse(start, maximum, pipeline);
    boolean tooLarge =
        response instanceof HttpResponse refusal
            && refusal.status().equals(HttpResponseStatus.REQUEST_ENTITY_TOO_LARGE);
    return tooLarge ? refusal(false) : response;
  }

  @Override
  protected void handleOversizedMessage(ChannelHandlerContext context, HttpMessage oversized) {
    context.writeAndFlush(refusal(true)).addListener(ChannelFutureListener.CLOSE);
  }

  /** Prevents the engine from adding a length that the client has not sent. */
  @Override
  protected void finishAggregation(FullHttpMessage whole) {
    // The headers stay as they arrived.
  }

  private FullHttpResponse refusal(boolean thenClose) {
    String explanation =
        String.format(
            "A request to %s has a body of more than %d bytes, the maximum in memory.\n\n"
                + "Fix: raise the limit with Settings.maxRequestBody(bytes), or save the body to a"
                + " file, with .saveBodyTo(path).\n",
            destination, maxContentLength());
    return Responses.whole(
        site.responder()
            .refused("a request that is too large, to " + destination, explanation, TOO_LARGE),
        !thenClose);
  }
}
