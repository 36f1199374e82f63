package dev.cachette.internal.real;

import dev.cachette.http.Request;
import dev.cachette.http.Response;
import io.netty.channel.ChannelHandlerContext;
import io.netty.channel.SimpleChannelInboundHandler;
import io.netty.handler.codec.http.FullHttpRequest;
import io.netty.handler.codec.http.FullHttpResponse;
import io.netty.handler.codec.http.HttpStatusClass;
import java.util.concurrent.CompletableFuture;
import javax.net.ssl.SSLException;

/** Sends a request as soon as its connection or stream is open, and receives the response. */
final class OneCall extends SimpleChannelInboundHandler<FullHttpResponse> {

  private final Request request;
  private final FullHttpRequest written;
  private final CompletableFuture<Response> response;
  private boolean sent;

  OneCall(Request request, FullHttpRequest written, CompletableFuture<Response> response) {
    this.request = request;
    this.written = written;
    this.response = response;
  }

  /** If it is added after a handshake, its connection is active already. */
  @Override
  public void handlerAdded(ChannelHandlerContext context) {
    if (context.channel().isActive()) {
      send(context);
    }
  }

  @Override
  public void channelActive(ChannelHandlerContext context) {
    send(context);
    context.fireChannelActive();
  }

  private void send(ChannelHandlerContext context) {
    if (!sent) {
      sent = true;
      context.writeAndFlush(written);
    }
  }

  @Override
  protected void channelRead0(ChannelHandlerContext context, FullHttpResponse received) {
    if (received.status().codeClass() == HttpStatusClass.INFORMATIONAL) {
      return;
    }
    if (received.decoderResult().isFailure()) {
      response.completeExceptionally(received.decoderResult().cause());
    } else {
      response.complete(Messages.fromEngine(received, request.method().equals("HEAD")));
    }
    context.close();
  }

  @Override
  public void channelInactive(ChannelHandlerContext context) {
    response.completeExceptionally(new ClosedEarly(request.uri().origin()));
  }

  @Override
  public void exceptionCaught(ChannelHandlerContext context, Throwable cause) {
    response.completeExceptionally(
        cause.getCause() instanceof SSLException handshake ? handshake : cause);
    context.close();
  }
}
