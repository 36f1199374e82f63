// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import dev.cachette.answer.AnswerInternals;
import dev.cachette.answer.Fault;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Response;
import dev.cachette.internal.answer.FeedReader;
import dev.cachette.internal.answer.GateState;
import dev.cachette.internal.answer.LiveBody;
import dev.cachette.internal.engine.PendingCall;
import dev.cachette.internal.engine.Reply;
import io.netty.buffer.Unpooled;
import io.netty.channel.ChannelFuture;
import io.netty.channel.ChannelHandlerContext;
import io.netty.handler.codec.http.DefaultHttpContent;
import io.netty.handler.codec.http.LastHttpContent;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Iterator;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/**
 * A reply that is delayed, streamed, or faulty: sent part by part, each after the previous one is
 * written, without a waiting thread. Runs on the thread of its connection.
 */
final class Transmission {

  private static final byte[] NO_CHUNK = "no chunk\r\n".getBytes(StandardCharsets.US_ASCII);

  private final ChannelHandlerContext context;
  private final Peer peer;
  private final PendingCall call;
  private final Reply reply;
  private final boolean keepAlive;
  private final ClientHooks clients;
  private final Consumer<Boolean> done;

  private final Parts parts;

  private Headers trailers;

  /** Cancels what it is waiting for. */
  private Runnable stopWaiting = () -> {};

  private @Nullable Runnable leaveFeed;
  private boolean begun;
  private boolean writing;

  /** The delay before it, while it waits for that. */
  private @Nullable Delay delay;

  /** True once it is known that there will be no answer. */
  private boolean silent;

  private boolean ended;

  /**
   * Prepares a transmission.
   *
   * @param done called at its end, with whether the connection stays open
   */
  Transmission(
      ChannelHandlerContext context,
      PendingCall call,
      Reply reply,
      boolean keepAlive,
      ClientHooks clients,
      Consumer<Boolean> done)
      throws IOException {
    this.clients = clients;
    this.context = context;
    this.peer = new Peer(context);
    this.call = call;
    this.reply = reply;
    this.keepAlive = keepAlive;
    this.done = done;
    this.parts = Parts.of(reply);
    this.trailers = reply.response().map(Response::trailers).orElse(Headers.none());
  }

  /** Returns true if the test that it belongs to has ended. */
  boolean isOver() {
    return call.isOver();
  }

  /** Returns true if the beginning of the response is written. */
  boolean hasBegun() {
    return begun;
  }

  /**
   * Returns true if it goes on for a client that sends nothing more: not if it never ends, or if
   * there is no answer to come.
   */
  boolean isForHalfClosed() {
    return !silent && leaveFeed == null;
  }

  void begin() {
    if (isOver()) {
      breakOff();
      return;
    }
    pass(reply.schedule().gates().iterator());
  }

  /**
   * Ends the call abruptly. An HTTP/2 connection stays open: its other calls may belong to a test
   * that goes on. Thread-safe.
   */
  void breakOff() {
    if (!context.executor().inEventLoop()) {
      context.executor().execute(this::breakOff);
    } else if (!ended) {
      if (peer.isHttp2()) {
        peer.resetStream();
      } else {
        peer.reset();
      }
      end(false);
    }
  }

  /** Called when the client disconnects. */
  void abandon() {
    if (!ended) {
      end(false);
    }
  }

  private void pass(Iterator<GateState> gates) {
    if (gates.hasNext()) {
      GateState gate = gates.next();
      stopWaiting = gate.pass(() -> context.executor().execute(() -> ifRunning(() -> pass(gates))));
      // Now that opening or releasing the gate lets it go.
      call.held();
    } else {
      call.sending();
      delay(reply.schedule().before());
    }
  }

  private void delay(Duration before) {
    if (before.isZero()) {
      head();
      return;
    }
    Delay waiting = Delay.of(before, call.age(), call.realAge());
    delay = waiting;
    after(before, this::head);
    if (waiting.isClockAhead()) {
      hasten(waiting);
    }
  }

  private void head() {
    delay = null;
    if (reply.response().isEmpty()) {
      goWrong(reply.fault().orElseThrow());
      return;
    }
    begun = true;
    call.writingFirst();
    Response response = reply.response().get();
    boolean chunked = reply.isStream() || wentWrong(Fault.Kind.MALFORMED_CHUNKS);
    context.writeAndFlush(Responses.head(response, chunked, parts.length(), keepAlive));
    if (call.request().method().equals("HEAD")) {
      context
          .writeAndFlush(LastHttpContent.EMPTY_LAST_CONTENT)
          .addListener(written -> ifRunning(() -> sent(false)));
      return;
    }
    after(reply.schedule().beforeBody(), this::body);
  }

  private void body() {
    reply.live().ifPresent(this::follow);
    pump();
  }

  private void follow(LiveBody live) {
    leaveFeed =
        live.read(
            new FeedReader() {
              @Override
              public void piece(Body piece) {
                context.executor().execute(() -> ifRunning(() -> more(piece)));
              }

              @Override
              public void end(Headers trailers) {
                context.executor().execute(() -> ifRunning(() -> noMore(true, trailers)));
              }

              @Override
              public void broken() {
                context.executor().execute(() -> ifRunning(() -> noMore(false, Headers.none())));
              }
            });
  }

  private void more(Body piece) {
    parts.add(piece.bytes());
    pump();
  }

  private void noMore(boolean inOrder, Headers following) {
    trailers = following;
    parts.finish(inOrder);
    pump();
  }

  /** Writes the available parts, one after the other. A loop: recursion would grow too deep. */
  private void pump() {
    while (!ended && !writing) {
      Parts.Part part;
      try {
        part = parts.next();
      } catch (IOException unreadable) {
        breakOff();
        return;
      }
      if (part == null) {
        if (parts.isFinished()) {
          last();
        } else {
          reply.live().ifPresent(LiveBody::passedOn);
        }
        return;
      }
      writing = true;
      if (part.pause().isZero()) {
        write(part);
      } else {
        after(
            part.pause(),
            () -> {
              write(part);
              pump();
            });
      }
    }
  }

  private void write(Parts.Part part) {
    ChannelFuture written =
        context.writeAndFlush(new DefaultHttpContent(Unpooled.wrappedBuffer(part.bytes())));
    if (written.isDone()) {
      writing = false;
    } else {
      written.addListener(result -> ifRunning(this::goOn));
    }
  }

  private void goOn() {
    writing = false;
    pump();
  }

  private void last() {
    if (!parts.isInOrder()) {
      breakOffBody();
      return;
    }
    Fault.Kind fault = reply.fault().map(Fault::kind).orElse(null);
    if (fault == null || fault == Fault.Kind.RESET_AFTER) {
      LastHttpContent end = Responses.end(trailers);
      ChannelFuture written = context.write(end);
      if (!keepAlive) {
        peer.announceClose(call.request());
      }
      context.flush();
      written.addListener(result -> ifRunning(() -> sent(fault != null)));
    } else {
      goWrong(reply.fault().get());
    }
  }

  private void sent(boolean thenReset) {
    call.delivered();
    if (thenReset) {
      peer.reset();
    } else if (!keepAlive) {
      peer.closeAfterResponse();
    }
    end(!thenReset && keepAlive);
  }

  private void goWrong(Fault fault) {
    if (fault.kind() == Fault.Kind.NO_RESPONSE) {
      // Nothing happens until the client disconnects or times out, or the test ends.
      silent = true;
      letTimeOut(call.age());
      return;
    }
    what(fault).run();
    call.delivered();
    if (!ended) {
      end(false);
    }
  }

  private Runnable what(Fault fault) {
    return switch (fault.kind()) {
      case CONNECTION_CLOSED -> peer::close;
      case NOT_HTTP ->
          () -> {
            peer.raw(AnswerInternals.raw(fault).bytes());
            peer.close();
          };
      case STREAM_RESET -> peer::resetStream;
      case GO_AWAY -> peer::goAway;
      case TRUNCATED -> this::truncated;
      case MALFORMED_CHUNKS -> this::breakOffBody;
      case CONNECTION_RESET, RESET_MID_BODY, RESET_AFTER -> peer::reset;
      // Before the request, but the client has kept a connection.
      case UNKNOWN_HOST,
          CONNECTION_REFUSED,
          CONNECT_TIMEOUT,
          EXPIRED_CERTIFICATE,
          NOT_YET_VALID_CERTIFICATE,
          WRONG_HOST_CERTIFICATE,
          UNTRUSTED_AUTHORITY,
          HANDSHAKE_REFUSED,
          OUTDATED_TLS ->
          peer::reset;
      case NO_RESPONSE -> throw new IllegalArgumentException(fault + " writes nothing");
    };
  }

  private void truncated() {
    if (peer.isHttp2()) {
      context.writeAndFlush(LastHttpContent.EMPTY_LAST_CONTENT);
    } else {
      peer.close();
    }
  }

  /** A body of unknown length must end abnormally. */
  private void breakOffBody() {
    if (peer.isHttp2()) {
      peer.resetStream();
    } else {
      peer.raw(NO_CHUNK);
      peer.close();
    }
    if (!ended) {
      end(false);
    }
  }

  /** Called when the clock of the session was moved; thread-safe. */
  void clockMoved() {
    if (!context.executor().inEventLoop()) {
      context.executor().execute(this::clockMoved);
    } else if (silent && !ended) {
      letTimeOut(call.age());
    } else if (delay != null && !ended) {
      hasten(delay);
    }
  }

  /** Sends it now if its delay is over by the clock, unless its client has timed out by then. */
  private void hasten(Delay waiting) {
    Duration age = call.age();
    if (!letTimeOut(waiting.within(age))) {
      stopWaiting.run();
      after(waiting.left(age), this::head);
    }
  }

  /**
   * Lets time pass for its client. One that reads notices its timeout when a byte arrives, which it
   * does not get.
   *
   * @return whether that is so
   */
  private boolean letTimeOut(Duration time) {
    boolean reads = clients.pass(peer.port(), call.request(), time);
    if (reads) {
      peer.raw(new byte[] {'\n'});
    }
    return reads;
  }

  private boolean wentWrong(Fault.Kind kind) {
    return reply.fault().filter(fault -> fault.kind() == kind).isPresent();
  }

  private void after(Duration pause, Runnable next) {
    if (pause.isZero()) {
      next.run();
      return;
    }
    Future<?> scheduled =
        context.executor().schedule(() -> ifRunning(next), pause.toNanos(), TimeUnit.NANOSECONDS);
    stopWaiting = () -> scheduled.cancel(false);
  }

  private void ifRunning(Runnable action) {
    if (!ended) {
      action.run();
    }
  }

  private void end(boolean servesOn) {
    ended = true;
    stopWaiting.run();
    if (silent) {
      clients.answered(peer.port());
    }
    if (leaveFeed != null) {
      leaveFeed.run();
    }
    parts.close();
    done.accept(servesOn);
  }
}
