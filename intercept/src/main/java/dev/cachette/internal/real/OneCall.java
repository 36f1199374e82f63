// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.real;

import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import io.netty.buffer.ByteBuf;
import io.netty.buffer.ByteBufUtil;
import io.netty.channel.ChannelHandlerContext;
import io.netty.channel.SimpleChannelInboundHandler;
import io.netty.handler.codec.DecoderResult;
import io.netty.handler.codec.http.FullHttpRequest;
import io.netty.handler.codec.http.HttpClientCodec;
import io.netty.handler.codec.http.HttpContent;
import io.netty.handler.codec.http.HttpHeaderNames;
import io.netty.handler.codec.http.HttpObject;
import io.netty.handler.codec.http.HttpResponse;
import io.netty.handler.codec.http.HttpResponseStatus;
import io.netty.handler.codec.http.HttpStatusClass;
import io.netty.handler.codec.http.LastHttpContent;
import java.util.Optional;
import javax.net.ssl.SSLException;

/** Sends a request as soon as its connection or stream is open, and receives the response. */
final class OneCall extends SimpleChannelInboundHandler<Object> {

  private final Request request;
  private final FullHttpRequest written;
  private final ArrivingResponse response;
  private boolean sent;

  /** True within an interim response (RFC 9110 section 15.2), which has an end of its own. */
  private boolean interim;

  /** True once another protocol is spoken. */
  private boolean upgraded;

  OneCall(Request request, FullHttpRequest written, ArrivingResponse response) {
    this.request = request;
    this.written = written;
    this.response = response;
  }

  /** If it is added after a handshake, its connection is active already. */
  @Override
  public void handlerAdded(ChannelHandlerContext context) {
    response.on(context.channel());
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
  protected void channelRead0(ChannelHandlerContext context, Object received) {
    if (received instanceof ByteBuf bytes) {
      // After an upgrade.
      response.add(ByteBufUtil.getBytes(bytes));
    } else if (received instanceof HttpObject part && !upgraded) {
      read(context, part);
    }
  }

  private void read(ChannelHandlerContext context, HttpObject received) {
    DecoderResult decoded = received.decoderResult();
    if (decoded.isFailure()) {
      response.fail(decoded.cause());
      context.close();
      return;
    }
    if (received instanceof HttpResponse head) {
      upgraded = head.status().equals(HttpResponseStatus.SWITCHING_PROTOCOLS);
      interim = head.status().codeClass() == HttpStatusClass.INFORMATIONAL && !upgraded;
      if (upgraded) {
        response.upgrade(context.pipeline().context(HttpClientCodec.class));
      }
      if (!interim) {
        response.begin(
            EngineMessages.head(head, request.method().equals("HEAD")),
            Optional.ofNullable(head.headers().get(HttpHeaderNames.CONTENT_LENGTH)));
      }
    }
    if (received instanceof HttpContent content && !interim && !upgraded) {
      response.add(ByteBufUtil.getBytes(content.content()));
    }
    if (received instanceof LastHttpContent last && !interim && !upgraded) {
      response.end(EngineMessages.headers(last.trailingHeaders()));
      context.close();
    }
  }

  @Override
  public void channelInactive(ChannelHandlerContext context) {
    if (upgraded) {
      response.end(Headers.none());
    } else {
      response.fail(new ClosedEarly(request.uri().origin()));
    }
  }

  @Override
  public void exceptionCaught(ChannelHandlerContext context, Throwable cause) {
    response.fail(cause.getCause() instanceof SSLException handshake ? handshake : cause);
    context.close();
  }
}
