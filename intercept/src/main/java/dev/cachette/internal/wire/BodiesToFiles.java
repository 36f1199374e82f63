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
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** Writes request bodies to a file, piece by piece, if their stub requires it. */
final class BodiesToFiles extends ChannelInboundHandlerAdapter {

  private final Destination destination;
  private final boolean secure;
  private final Site site;
  private @Nullable HttpRequest head;
  private @Nullable FileChannel file;

  BodiesToFiles(Destination destination, boolean secure, Site site) {
    this.destination = destination;
    this.secure = secure;
    this.site = site;
  }

  @Override
  public void channelRead(ChannelHandlerContext context, Object message) throws IOException {
    if (message instanceof HttpRequest request) {
      Optional<String> wanted = fileFor(request);
      if (wanted.isPresent()) {
        begin(context, request, wanted.get());
        if (message instanceof HttpContent empty) {
          // Over HTTP/2, a request without a body is one message.
          write(context, empty);
        }
        return;
      }
    }
    if (head != null && message instanceof HttpContent content) {
      write(context, content);
      return;
    }
    context.fireChannelRead(message);
  }

  private Optional<String> fileFor(HttpRequest request) {
    if (!site.responder().keepsBodies() || request.decoderResult().isFailure()) {
      return Optional.empty();
    }
    try {
      Request read = Requests.of(request, Body.empty(), destination, secure);
      return site.responder().bodyFile(read);
    } catch (IllegalArgumentException malformed) {
      // Reported when the complete request has arrived.
      return Optional.empty();
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
