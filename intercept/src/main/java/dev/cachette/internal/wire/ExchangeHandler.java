package dev.cachette.internal.wire;

import dev.cachette.http.Body;
import dev.cachette.http.Header;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.http.Uri;
import dev.cachette.internal.stub.Responder;
import io.netty.buffer.ByteBufUtil;
import io.netty.channel.ChannelFutureListener;
import io.netty.channel.ChannelHandlerContext;
import io.netty.channel.SimpleChannelInboundHandler;
import io.netty.handler.codec.http.FullHttpRequest;
import io.netty.handler.codec.http.FullHttpResponse;
import io.netty.handler.codec.http.HttpMethod;
import io.netty.handler.codec.http.HttpUtil;
import java.util.List;

/** Gives each request of a connection to the responder, and its response to the connection. */
final class ExchangeHandler extends SimpleChannelInboundHandler<FullHttpRequest> {

  private final Destination destination;
  private final String scheme;
  private final Responder responder;

  ExchangeHandler(Destination destination, String scheme, Responder responder) {
    this.destination = destination;
    this.scheme = scheme;
    this.responder = responder;
  }

  @Override
  protected void channelRead0(ChannelHandlerContext context, FullHttpRequest received) {
    boolean isRequest =
        received.decoderResult().isSuccess() && !received.method().equals(HttpMethod.CONNECT);
    FullHttpResponse response = Responses.toNetty(isRequest ? respond(received) : refuse(received));
    boolean keepAlive = isRequest && HttpUtil.isKeepAlive(received);
    HttpUtil.setKeepAlive(response, keepAlive);
    var written = context.writeAndFlush(response);
    if (!keepAlive) {
      written.addListener(ChannelFutureListener.CLOSE);
    }
  }

  private Response respond(FullHttpRequest received) {
    Request request;
    try {
      request = requestOf(received);
    } catch (IllegalArgumentException malformed) {
      return refuseUnreadable(malformed);
    }
    try {
      return responder.respond(request);
    } catch (RuntimeException failed) {
      return responder.failed(request, "Cachette failed to answer " + request + ": " + failed);
    }
  }

  private Request requestOf(FullHttpRequest received) {
    List<Header> fields =
        received.headers().entries().stream()
            .map(entry -> new Header(entry.getKey(), entry.getValue()))
            .toList();
    Headers headers = Headers.of(fields);
    Uri uri = destination.uriOf(scheme, received.uri(), headers.first("host"));
    byte[] content = ByteBufUtil.getBytes(received.content());
    return new Request(received.method().name(), uri, headers, Body.of(content));
  }

  private Response refuse(FullHttpRequest received) {
    if (received.decoderResult().isFailure()) {
      return refuseUnreadable(received.decoderResult().cause());
    }
    return responder.refused(
        "CONNECT " + received.uri() + " to " + destination,
        String.format(
            "A client asks %s to be its proxy for %s, and Cachette is no proxy.\n\n"
                + "Mend: let the client connect without a proxy in this test.\n",
            destination, received.uri()));
  }

  private Response refuseUnreadable(Throwable cause) {
    return responder.refused(
        "bytes that are no HTTP request, to " + destination,
        String.format(
            "What arrived for %s cannot be read as an HTTP/1.1 request: %s\n\n"
                + "Likely cause: another protocol, or a malformed header.\n",
            destination, cause.getMessage()));
  }

  /** A connection that broke is the client's affair; there is nobody left to tell. */
  @Override
  public void exceptionCaught(ChannelHandlerContext context, Throwable cause) {
    context.close();
  }
}
