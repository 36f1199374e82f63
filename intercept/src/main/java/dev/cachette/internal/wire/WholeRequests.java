package dev.cachette.internal.wire;

import dev.cachette.internal.stub.Responder;
import io.netty.channel.ChannelFutureListener;
import io.netty.channel.ChannelHandlerContext;
import io.netty.handler.codec.http.HttpMessage;
import io.netty.handler.codec.http.HttpObjectAggregator;

/** Puts the pieces of a request together, and says so where it is too large to be held. */
final class WholeRequests extends HttpObjectAggregator {

  private final Destination destination;
  private final Responder responder;

  WholeRequests(Destination destination, Responder responder, int maxRequestBody) {
    super(maxRequestBody);
    this.destination = destination;
    this.responder = responder;
  }

  @Override
  protected void handleOversizedMessage(ChannelHandlerContext context, HttpMessage oversized) {
    String explanation =
        String.format(
            "A request to %s has a body of more than %d bytes, the most that is held in memory.%n%n"
                + "Mend: raise the limit with Settings.maxRequestBody(bytes).%n",
            destination, maxContentLength());
    context
        .writeAndFlush(
            Responses.toNetty(
                responder.refused("too large a request to " + destination, explanation)))
        .addListener(ChannelFutureListener.CLOSE);
  }
}
