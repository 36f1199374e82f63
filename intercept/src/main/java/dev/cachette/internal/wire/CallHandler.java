// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import dev.cachette.http.Body;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.internal.engine.ConnectionInfo;
import dev.cachette.internal.engine.Incoming;
import dev.cachette.internal.engine.PendingCall;
import dev.cachette.internal.engine.Reply;
import io.netty.buffer.ByteBufUtil;
import io.netty.channel.ChannelFuture;
import io.netty.channel.ChannelFutureListener;
import io.netty.channel.ChannelHandlerContext;
import io.netty.channel.SimpleChannelInboundHandler;
import io.netty.handler.codec.http.FullHttpRequest;
import io.netty.handler.codec.http.HttpMethod;
import io.netty.handler.codec.http.HttpUtil;
import io.netty.handler.codec.http.HttpVersion;
import io.netty.util.concurrent.Future;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;

/**
 * Passes each request of a connection, or of an HTTP/2 stream, to the responder, and its reply to
 * the connection, one after the other (RFC 9112 section 9.3.2). Runs on the thread of the
 * connection, except slow decisions and replies.
 */
final class CallHandler extends SimpleChannelInboundHandler<FullHttpRequest> {

  /**
   * A client that pipelines more requests has to wait; until then we notice when it disconnects.
   */
  private static final int MOST_WAITING = 64;

  private static final byte[] CONTINUE =
      "HTTP/1.1 100 Continue\r\n\r\n".getBytes(StandardCharsets.US_ASCII);

  private static final int PROBE_MILLIS = 50;

  private final Destination destination;
  private final boolean secure;
  private final Site site;

  /** Requests that arrived while the previous one was being answered. */
  private final Deque<FullHttpRequest> waiting = new ArrayDeque<>();

  private @Nullable Peer peer;
  private boolean busy;
  private boolean inputEnded;

  /** The last answer that was written at once. */
  private @Nullable ChannelFuture lastWrite;

  /** True if the last request came by HTTP/1.1, which has interim responses. */
  private boolean interim;

  private @Nullable Transmission transmission;
  private @Nullable Work work;

  CallHandler(Destination destination, boolean secure, Site site) {
    this.destination = destination;
    this.secure = secure;
    this.site = site;
  }

  /** Returns true if an answer is being computed or sent. */
  boolean isBusy() {
    return busy;
  }

  /** Returns true if everything is answered, and the client may send another request. */
  boolean isKept() {
    return !busy && waiting.isEmpty() && !inputEnded && (lastWrite == null || lastWrite.isDone());
  }

  Destination destination() {
    return destination;
  }

  boolean isSecure() {
    return secure;
  }

  /**
   * Notes that nothing else will arrive.
   *
   * @return true if the client may still read an answer, after which the connection is closed
   */
  boolean inputEnded(ChannelHandlerContext context) {
    inputEnded = true;
    if (transmission != null && !transmission.isForHalfClosed()) {
      return false;
    }
    if (!busy && lastWrite != null && !lastWrite.isDone()) {
      lastWrite.addListener(ChannelFutureListener.CLOSE);
      return true;
    }
    if (isNothingSent()) {
      // A client that has gone answers the first by TCP RST, which makes the second fail.
      probe(context);
      context.executor().schedule(() -> probe(context), PROBE_MILLIS, TimeUnit.MILLISECONDS);
    }
    return busy;
  }

  private boolean isNothingSent() {
    return busy && (transmission == null || !transmission.hasBegun());
  }

  /** Sends an interim response, which a client that reads on skips (RFC 9110 section 15.2). */
  private void probe(ChannelHandlerContext context) {
    if (interim && isNothingSent() && context.channel().isActive()) {
      new Peer(context).raw(CONTINUE);
    }
  }

  @Override
  protected void channelRead0(ChannelHandlerContext context, FullHttpRequest received) {
    interim = received.protocolVersion().equals(HttpVersion.HTTP_1_1);
    if (busy) {
      waiting.add(received.retain());
      context.channel().config().setAutoRead(waiting.size() < MOST_WAITING);
    } else {
      handle(context, received);
    }
  }

  private void handle(ChannelHandlerContext context, FullHttpRequest received) {
    if (received.decoderResult().isFailure()) {
      write(context, unreadable(received.decoderResult().cause()), false);
      return;
    }
    if (received.method().equals(HttpMethod.CONNECT)) {
      connect(context, received);
      return;
    }
    boolean keepAlive = HttpUtil.isKeepAlive(received);
    Request request;
    try {
      request = requestOf(received);
    } catch (IllegalArgumentException malformed) {
      write(context, unreadable(malformed), keepAlive);
      return;
    }
    Incoming incoming = site.responder().receive(request, carrier(context));
    try {
      answer(context, incoming, keepAlive);
    } catch (RuntimeException failed) {
      PendingCall failure = incoming.fail(failed);
      send(context, failure, failure.reply(), keepAlive);
    }
  }

  private void answer(ChannelHandlerContext context, Incoming incoming, boolean keepAlive) {
    Optional<PendingCall> decided = incoming.decideQuickly();
    if (decided.isPresent() && !decided.get().takesTime()) {
      send(context, decided.get(), decided.get().reply(), keepAlive);
      return;
    }
    busy = true;
    work =
        new Work(context, site, incoming, (call, reply) -> finish(context, call, reply, keepAlive));
    decided.ifPresentOrElse(work::compute, work::decide);
  }

  private void finish(
      ChannelHandlerContext context, PendingCall call, Reply reply, boolean keepAlive) {
    busy = false;
    work = null;
    if (context.channel().isActive()) {
      send(context, call, reply, keepAlive);
      goOn(context, keepAlive);
    }
  }

  private void send(
      ChannelHandlerContext context, PendingCall call, Reply reply, boolean keepAlive) {
    boolean more = !inputEnded || !waiting.isEmpty();
    if (call.needsNewConnectionNext()) {
      sendAsLast(context, call, reply);
    } else {
      boolean ends = call.endsConnection() && !new Peer(context).isHttp2();
      sendNow(context, call, reply, keepAlive && more && !ends);
    }
  }

  /** Sends a reply after which the client must make a new connection. */
  private void sendAsLast(ChannelHandlerContext context, PendingCall call, Reply reply) {
    busy = true;
    OtherConnections.end(
        peer.connection(),
        site.readConnections().apply(destination.host(), destination.port()),
        () -> {
          busy = false;
          sendNow(context, call, reply, false);
          goOn(context, false);
        });
  }

  private void sendNow(
      ChannelHandlerContext context, PendingCall call, Reply reply, boolean serveOn) {
    if (peer != null) {
      site.clients().get().answered(peer.port());
    }
    if (reply.isPlain()) {
      call.sending();
      call.writingFirst();
      ChannelFuture written =
          context.write(Responses.whole(reply.response().orElseThrow(), serveOn));
      if (!serveOn) {
        new Peer(context).announceClose(call.request());
      }
      context.flush();
      lastWrite = written;
      written.addListener(result -> tell(call, result));
      closeAfter(context, written, serveOn);
      return;
    }
    if (reply.upgrade().isPresent()) {
      call.sending();
      UpgradedConnection.begin(
          context,
          reply.response().orElseThrow(),
          call.request().headers().first("upgrade").orElseThrow(),
          reply.upgrade().get());
      call.delivered();
      return;
    }
    Response impossible =
        Impossible.reason(reply, new Peer(context)).map(call::cannotBeSent).orElse(null);
    if (impossible != null) {
      call.sending();
      write(context, impossible, serveOn);
      return;
    }
    transmit(context, call, reply, serveOn);
  }

  private void transmit(
      ChannelHandlerContext context, PendingCall call, Reply reply, boolean serveOn) {
    try {
      transmission =
          new Transmission(
              context,
              call,
              reply,
              serveOn,
              site.clients().get(),
              servesOn -> transmitted(context, servesOn));
    } catch (IOException unreadable) {
      call.sending();
      String why = "the file it answers with cannot be read, " + unreadable;
      write(context, call.cannotBeSent(why), serveOn);
      return;
    }
    busy = true;
    site.transmissions().add(transmission);
    transmission.begin();
  }

  private void transmitted(ChannelHandlerContext context, boolean servesOn) {
    site.transmissions().remove(transmission);
    transmission = null;
    // Not within the transmission, which is just ending; until then, arriving data has to wait.
    context
        .executor()
        .execute(
            () -> {
              busy = false;
              goOn(context, servesOn);
            });
  }

  private void goOn(ChannelHandlerContext context, boolean keepAlive) {
    if (!keepAlive && !busy) {
      // Nothing after the end of a connection is answered (RFC 9112 section 9.6).
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
    if (inputEnded && !busy) {
      new Peer(context).close();
    }
    context.channel().config().setAutoRead(waiting.size() < MOST_WAITING);
  }

  private static void tell(PendingCall call, Future<?> written) {
    if (written.isSuccess()) {
      call.delivered();
    }
  }

  private static void write(ChannelHandlerContext context, Response response, boolean keepAlive) {
    ChannelFuture written = context.writeAndFlush(Responses.whole(response, keepAlive));
    closeAfter(context, written, keepAlive);
  }

  private static void closeAfter(
      ChannelHandlerContext context, ChannelFuture written, boolean keepAlive) {
    if (!keepAlive) {
      written.addListener(ignored -> new Peer(context).closeAfterResponse());
    }
  }

  private ConnectionInfo carrier(ChannelHandlerContext context) {
    if (peer == null) {
      peer = new Peer(context);
    }
    return new ConnectionInfo(
        peer.isHttp2() ? "HTTP/2" : "HTTP/1.1",
        peer.number(),
        peer.maker(site.clients().get()),
        peer.certificate());
  }

  private Request requestOf(FullHttpRequest received) {
    Body body = Body.of(ByteBufUtil.getBytes(received.content()));
    return Requests.of(received, body, destination, secure);
  }

  /** The client uses us as its proxy: from now on this is a connection to its target. */
  private void connect(ChannelHandlerContext context, FullHttpRequest received) {
    try {
      Destination wanted = Destination.ofConnect(received.uri());
      HttpPipeline.becomeTunnel(context, wanted, site);
    } catch (IllegalArgumentException malformed) {
      write(context, unreadable(malformed), false);
    }
  }

  private Response unreadable(Throwable cause) {
    return site.responder()
        .refused(
            "bytes that are not an HTTP request, to " + destination,
            String.format(
                "The bytes that arrived for %s are not an HTTP request: %s\n\n"
                    + "Likely cause: another protocol, or a malformed header.\n",
                destination, cause.getMessage()));
  }

  /** A client that disconnected needs no more answers. */
  @Override
  public void channelInactive(ChannelHandlerContext context) {
    dropWaiting();
    if (work != null) {
      work.hungUp();
    }
    if (transmission != null) {
      transmission.abandon();
    }
    context.fireChannelInactive();
  }

  private void dropWaiting() {
    waiting.forEach(FullHttpRequest::release);
    waiting.clear();
  }

  /** A broken connection is the client's problem; there is nobody left to notify. */
  @Override
  public void exceptionCaught(ChannelHandlerContext context, Throwable cause) {
    context.close();
  }
}
