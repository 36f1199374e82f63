// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import dev.cachette.http.Body;
import dev.cachette.http.Request;
import io.netty.buffer.ByteBuf;
import io.netty.buffer.Unpooled;
import io.netty.channel.ChannelHandlerContext;
import io.netty.channel.ChannelInboundHandlerAdapter;
import io.netty.handler.codec.http.DefaultFullHttpRequest;
import io.netty.handler.codec.http.DefaultFullHttpResponse;
import io.netty.handler.codec.http.EmptyHttpHeaders;
import io.netty.handler.codec.http.HttpContent;
import io.netty.handler.codec.http.HttpRequest;
import io.netty.handler.codec.http.HttpResponseStatus;
import io.netty.handler.codec.http.HttpUtil;
import io.netty.handler.codec.http.HttpVersion;
import io.netty.handler.codec.http.LastHttpContent;
import io.netty.util.ReferenceCountUtil;
import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;

/** Writes request bodies to a file, piece by piece, if their stub requires it. */
final class BodiesToFiles extends ChannelInboundHandlerAdapter {

  private static final long GRACE_MILLIS = 250;

  private final Destination destination;
  private final boolean secure;
  private final Site site;
  private @Nullable HttpRequest head;
  private @Nullable FileChannel file;

  /** A request about which it is being decided, and what has arrived since. */
  private final Deque<Object> undecided = new ArrayDeque<>();

  BodiesToFiles(Destination destination, boolean secure, Site site) {
    this.destination = destination;
    this.secure = secure;
    this.site = site;
  }

  @Override
  public void channelRead(ChannelHandlerContext context, Object message) throws IOException {
    if (!undecided.isEmpty()) {
      undecided.add(message);
      return;
    }
    if (message instanceof HttpRequest request && mayBeKept(request)) {
      decide(context, request);
      return;
    }
    pass(context, message);
  }

  private void pass(ChannelHandlerContext context, Object message) throws IOException {
    if (head != null && message instanceof HttpContent content) {
      write(context, content);
      return;
    }
    context.fireChannelRead(message);
  }

  private boolean mayBeKept(HttpRequest request) {
    return site.responder().keepsBodies() && request.decoderResult().isSuccess();
  }

  /** Finds out whether a body is kept; nothing else is read if that may take long. */
  private void decide(ChannelHandlerContext context, HttpRequest request) throws IOException {
    Request read;
    try {
      read = Requests.of(request, Body.empty(), destination, secure);
    } catch (IllegalArgumentException malformed) {
      // Reported when the complete request has arrived.
      pass(context, request);
      return;
    }
    if (site.responder().isBodyFileKnown(read)) {
      decided(context, request, site.responder().bodyFile(read));
      return;
    }
    undecided.add(request);
    context.channel().config().setAutoRead(false);
    Runnable decision =
        () -> {
          Optional<String> wanted = site.responder().bodyFile(read);
          context.executor().execute(() -> resume(context, request, wanted));
        };
    site.workers().decide(decision);
    // In two parts: if the JVM stood still, the worker has had no time either.
    after(
        context,
        site.responder().conditionTimeout().toMillis(),
        () -> after(context, GRACE_MILLIS, () -> giveUp(context, request, decision)));
  }

  private static void after(ChannelHandlerContext context, long millis, Runnable task) {
    context.executor().schedule(task, millis, TimeUnit.MILLISECONDS);
  }

  private void giveUp(ChannelHandlerContext context, HttpRequest request, Runnable decision) {
    if (undecided.peek() == request) {
      site.workers().abandon(decision);
      // It is found out again, and reported, when the complete request has arrived.
      resume(context, request, Optional.empty());
    }
  }

  /** Goes on with a request, and with what has arrived since, unless it was given up. */
  private void resume(ChannelHandlerContext context, HttpRequest request, Optional<String> wanted) {
    if (undecided.peek() != request) {
      return;
    }
    Deque<Object> arrived = new ArrayDeque<>(undecided);
    undecided.clear();
    arrived.remove();
    try {
      decided(context, request, wanted);
      while (!arrived.isEmpty()) {
        channelRead(context, arrived.remove());
      }
      context.channel().config().setAutoRead(true);
    } catch (IOException unwritable) {
      arrived.forEach(ReferenceCountUtil::release);
      context.fireExceptionCaught(unwritable);
    }
  }

  private void decided(ChannelHandlerContext context, HttpRequest request, Optional<String> wanted)
      throws IOException {
    if (wanted.isEmpty()) {
      pass(context, request);
      return;
    }
    begin(context, request, wanted.get());
    if (request instanceof HttpContent empty) {
      // Over HTTP/2, a request without a body is one message.
      write(context, empty);
    }
  }

  private void begin(ChannelHandlerContext context, HttpRequest request, String path)
      throws IOException {
    head = request;
    file =
        FileChannel.open(
            Path.of(path),
            StandardOpenOption.CREATE,
            StandardOpenOption.TRUNCATE_EXISTING,
            StandardOpenOption.WRITE);
    if (HttpUtil.is100ContinueExpected(request)) {
      context.writeAndFlush(
          new DefaultFullHttpResponse(
              HttpVersion.HTTP_1_1, HttpResponseStatus.CONTINUE, Unpooled.EMPTY_BUFFER));
    }
  }

  private void write(ChannelHandlerContext context, HttpContent piece) throws IOException {
    try {
      ByteBuf bytes = piece.content();
      while (bytes.isReadable()) {
        bytes.readBytes(file, file.position(), bytes.readableBytes());
        file.position(file.size());
      }
    } finally {
      ReferenceCountUtil.release(piece);
    }
    if (piece instanceof LastHttpContent) {
      HttpRequest whole = head;
      close();
      context.fireChannelRead(
          new DefaultFullHttpRequest(
              whole.protocolVersion(),
              whole.method(),
              whole.uri(),
              Unpooled.EMPTY_BUFFER,
              whole.headers(),
              EmptyHttpHeaders.INSTANCE));
    }
  }

  /** If a client disconnects, the file keeps what it has sent. */
  @Override
  public void channelInactive(ChannelHandlerContext context) throws IOException {
    undecided.forEach(ReferenceCountUtil::release);
    undecided.clear();
    close();
    context.fireChannelInactive();
  }

  private void close() throws IOException {
    head = null;
    if (file != null) {
      file.close();
      file = null;
    }
  }
}
