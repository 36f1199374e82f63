// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.real;

import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import io.netty.buffer.ByteBuf;
import io.netty.buffer.ByteBufUtil;
import io.netty.channel.Channel;
import io.netty.channel.ChannelFuture;
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
import io.netty.handler.codec.http.HttpUtil;
import io.netty.handler.codec.http.LastHttpContent;
import java.util.Optional;
import java.util.function.Consumer;
import javax.net.ssl.SSLException;
import org.jspecify.annotations.Nullable;

/** Sends a request as soon as its connection or stream is open, and receives the response. */
final class OneCall extends SimpleChannelInboundHandler<Object> {

  private final Request request;
  private final FullHttpRequest written;
  private final ArrivingResponse response;
  private Optional<Consumer<Channel>> keeping = Optional.empty();
  private Optional<Runnable> repeating = Optional.empty();
  private @Nullable ChannelFuture sent;

  /** True once another connection has the call. */
  private boolean isRepeated;

  /** True once the service has begun to respond. */
  private boolean isAnswered;

  /** True if the service serves other calls on this connection. */
  private boolean servesOn;

  /** True within an interim response (RFC 9110 section 15.2), which has an end of its own. */
  private boolean interim;

  /** True once another protocol is spoken. */
  private boolean upgraded;

  OneCall(Request request, FullHttpRequest written, ArrivingResponse response) {
    this.request = request;
    this.written = written;
    this.response = response;
  }

  /** Returns the request. */
  Request request() {
    return request;
  }

  /** Sets who gets the connection after this call, if the service serves on. */
  OneCall keptBy(Consumer<Channel> keeper) {
    keeping = Optional.of(keeper);
    return this;
  }

  /** Sets what is done instead of a failure, if the connection ends before any response. */
  void repeatedBy(Runnable other) {
    repeating = Optional.of(other);
  }

  /** Returns the call for a stream of HTTP/2, which has no such header. */
  OneCall onStream() {
    written.headers().remove(HttpHeaderNames.CONNECTION);
    return this;
  }

  /** If it is added after a handshake, its connection is active already. */
  @Override
  public void handlerAdded(ChannelHandlerContext context) {
    response.on(context.channel());
    if (context.channel().isActive()) {
      send(context);
    } else if (!context.channel().isOpen()) {
      fail(new ClosedEarly(request.uri().origin()));
    }
  }

  @Override
  public void channelActive(ChannelHandlerContext context) {
    send(context);
    context.fireChannelActive();
  }

  private void send(ChannelHandlerContext context) {
    if (sent == null) {
      sent = context.writeAndFlush(written);
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
      fail(decoded.cause());
      context.close();
      return;
    }
    if (received instanceof HttpResponse head) {
      isAnswered = true;
      servesOn = HttpUtil.isKeepAlive(head);
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
      end(context, EngineMessages.headers(last.trailingHeaders()));
    }
  }

  private void end(ChannelHandlerContext context, Headers trailers) {
    boolean kept =
        keeping.isPresent()
            && servesOn
            && sent != null
            && sent.isSuccess()
            && context.channel().isActive();
    if (kept) {
      response.keepConnection();
      context.pipeline().remove(this);
      keeping.get().accept(context.channel());
    }
    response.end(trailers);
    if (!kept) {
      context.close();
    }
  }

  private void fail(Throwable cause) {
    if (isRepeated) {
      return;
    }
    isRepeated = repeating.isPresent() && !isAnswered && !response.whole().isDone();
    if (isRepeated) {
      repeating.get().run();
    } else {
      response.fail(cause);
    }
  }

  @Override
  public void channelInactive(ChannelHandlerContext context) {
    if (upgraded) {
      response.end(Headers.none());
    } else {
      fail(new ClosedEarly(request.uri().origin()));
    }
  }

  @Override
  public void exceptionCaught(ChannelHandlerContext context, Throwable cause) {
    fail(cause.getCause() instanceof SSLException handshake ? handshake : cause);
    context.close();
  }
}
