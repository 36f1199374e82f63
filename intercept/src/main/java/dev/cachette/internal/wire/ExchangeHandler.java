package dev.cachette.internal.wire;

import dev.cachette.http.Body;
import dev.cachette.http.Header;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.http.Uri;
import dev.cachette.internal.stub.Exchange;
import dev.cachette.internal.stub.Responder;
import io.netty.buffer.ByteBufUtil;
import io.netty.channel.ChannelFuture;
import io.netty.channel.ChannelFutureListener;
import io.netty.channel.ChannelHandlerContext;
import io.netty.channel.SimpleChannelInboundHandler;
import io.netty.handler.codec.http.FullHttpRequest;
import io.netty.handler.codec.http.FullHttpResponse;
import io.netty.handler.codec.http.HttpMethod;
import io.netty.handler.codec.http.HttpUtil;
import io.netty.util.concurrent.Future;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;

/**
 * Gives each request of a connection to the responder, and its response to the connection, one
 * after the other (RFC 9112 section 9.3.2). All of it on the engine's thread, but for the user's
 * own functions.
 */
final class ExchangeHandler extends SimpleChannelInboundHandler<FullHttpRequest> {

  private final Destination destination;
  private final String scheme;
  private final Responder responder;
  private final Workers workers;

  /** Requests that came while the one before them was still being answered. */
  private final Deque<FullHttpRequest> waiting = new ArrayDeque<>();

  private boolean busy;

  ExchangeHandler(Destination destination, String scheme, Responder responder, Workers workers) {
    this.destination = destination;
    this.scheme = scheme;
    this.responder = responder;
    this.workers = workers;
  }

  @Override
  protected void channelRead0(ChannelHandlerContext context, FullHttpRequest received) {
    if (busy) {
      waiting.add(received.retain());
    } else {
      handle(context, received);
    }
  }

  private void handle(ChannelHandlerContext context, FullHttpRequest received) {
    boolean isRequest =
        received.decoderResult().isSuccess() && !received.method().equals(HttpMethod.CONNECT);
    boolean keepAlive = isRequest && HttpUtil.isKeepAlive(received);
    if (!isRequest) {
      write(context, refuse(received), false);
      return;
    }
    Request request;
    try {
      request = requestOf(received);
    } catch (IllegalArgumentException malformed) {
      write(context, refuseUnreadable(malformed), keepAlive);
      return;
    }
    try {
      answer(context, responder.receive(request), keepAlive);
    } catch (RuntimeException failed) {
      write(context, failed(request, failed), keepAlive);
    }
  }

  private void answer(ChannelHandlerContext context, Exchange exchange, boolean keepAlive) {
    if (!exchange.runsUserCode()) {
      write(context, exchange.response(), keepAlive)
          .addListener(written -> tell(exchange, written));
      return;
    }
    busy = true;
    context.channel().config().setAutoRead(false);
    workers.execute(
        () -> {
          Response response = responseOf(exchange);
          context.executor().execute(() -> finish(context, exchange, response, keepAlive));
        });
  }

  private void finish(
      ChannelHandlerContext context, Exchange exchange, Response response, boolean keepAlive) {
    write(context, response, keepAlive).addListener(written -> tell(exchange, written));
    busy = false;
    if (!keepAlive) {
      // Nothing that follows on a connection that ends is answered (RFC 9112 section 9.6).
      dropWaiting();
      return;
    }
    while (!busy && !waiting.isEmpty()) {
      FullHttpRequest next = waiting.remove();
      try {
        handle(context, next);
      } finally {
        next.release();
      }
    }
    context.channel().config().setAutoRead(!busy);
  }

  /** Whatever goes wrong here, the connection must not wait for ever. */
  private Response responseOf(Exchange exchange) {
    try {
      return exchange.response();
    } catch (RuntimeException failed) {
      return failed(exchange.request(), failed);
    }
  }

  private static void tell(Exchange exchange, Future<?> written) {
    if (written.isSuccess()) {
      exchange.delivered();
    }
  }

  private static ChannelFuture write(
      ChannelHandlerContext context, Response response, boolean keepAlive) {
    FullHttpResponse message = Responses.toNetty(response);
    HttpUtil.setKeepAlive(message, keepAlive);
    ChannelFuture written = context.writeAndFlush(message);
    return keepAlive ? written : written.addListener(ChannelFutureListener.CLOSE);
  }

  private Response failed(Request request, RuntimeException failure) {
    return responder.failed(request, "Cachette failed to answer " + request + ": " + failure);
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

  /** Whoever hung up needs no more answers. */
  @Override
  public void channelInactive(ChannelHandlerContext context) {
    dropWaiting();
    context.fireChannelInactive();
  }

  private void dropWaiting() {
    waiting.forEach(FullHttpRequest::release);
    waiting.clear();
  }

  /** A connection that broke is the client's affair; there is nobody left to tell. */
  @Override
  public void exceptionCaught(ChannelHandlerContext context, Throwable cause) {
    context.close();
  }
}
