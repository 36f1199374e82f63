package dev.cachette.internal.wire;

import dev.cachette.answer.Feed;
import dev.cachette.answer.Gate;
import dev.cachette.answer.Trouble;
import dev.cachette.http.Body;
import dev.cachette.http.Response;
import dev.cachette.internal.stub.Exchange;
import dev.cachette.internal.stub.Reply;
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
 * One reply that takes its time, is a stream, or goes wrong: sent part by part, each when the one
 * before is written, with no thread waiting. All of it on the thread of its connection.
 */
final class Transmission {

  private static final byte[] NO_CHUNK = "no chunk\r\n".getBytes(StandardCharsets.US_ASCII);

  private final ChannelHandlerContext context;
  private final Peer peer;
  private final Exchange exchange;
  private final Reply reply;
  private final boolean keepAlive;
  private final Consumer<Boolean> done;

  private final Parts parts;

  /** What is being waited for, and how not to. */
  private Runnable stopWaiting = () -> {};

  private @Nullable Runnable leaveFeed;
  private boolean writing;
  private boolean ended;

  /**
   * A transmission that has not begun.
   *
   * @param done is told when it has ended, and whether the connection serves on
   */
  Transmission(
      ChannelHandlerContext context,
      Exchange exchange,
      Reply reply,
      boolean keepAlive,
      Consumer<Boolean> done)
      throws IOException {
    this.context = context;
    this.peer = new Peer(context);
    this.exchange = exchange;
    this.reply = reply;
    this.keepAlive = keepAlive;
    this.done = done;
    this.parts = Parts.of(reply);
  }

  /** Whether the test that it belongs to has ended. */
  boolean isOver() {
    return exchange.isOver();
  }

  void begin() {
    if (isOver()) {
      breakOff();
      return;
    }
    pass(reply.schedule().gates().iterator());
  }

  /** Ends the connection, and with it whatever waits for more; any thread may ask for it. */
  void breakOff() {
    if (!context.executor().inEventLoop()) {
      context.executor().execute(this::breakOff);
    } else if (!ended) {
      peer.reset();
      end(false);
    }
  }

  /** The caller has hung up. */
  void abandon() {
    if (!ended) {
      end(false);
    }
  }

  private void pass(Iterator<Gate> gates) {
    if (gates.hasNext()) {
      stopWaiting =
          gates.next().pass(() -> context.executor().execute(() -> ifRunning(() -> pass(gates))));
    } else {
      after(reply.schedule().before(), this::head);
    }
  }

  private void head() {
    if (reply.response().isEmpty()) {
      goWrong(reply.trouble().orElseThrow());
      return;
    }
    Response response = reply.response().get();
    boolean chunked = reply.isStream() || wentWrong(Trouble.Kind.BROKEN_CHUNKS);
    context.writeAndFlush(Responses.head(response, chunked, parts.length(), keepAlive));
    if (exchange.request().method().equals("HEAD")) {
      context
          .writeAndFlush(LastHttpContent.EMPTY_LAST_CONTENT)
          .addListener(written -> ifRunning(() -> sent(false)));
      return;
    }
    after(reply.schedule().beforeBody(), this::body);
  }

  private void body() {
    reply.feed().ifPresent(this::follow);
    pump();
  }

  private void follow(Feed feed) {
    leaveFeed =
        feed.read(
            new Feed.Reader() {
              @Override
              public void piece(Body piece) {
                context.executor().execute(() -> ifRunning(() -> more(piece)));
              }

              @Override
              public void end(boolean inOrder) {
                context.executor().execute(() -> ifRunning(() -> noMore(inOrder)));
              }
            });
  }

  private void more(Body piece) {
    parts.add(piece.bytes());
    pump();
  }

  private void noMore(boolean inOrder) {
    parts.finish(inOrder);
    pump();
  }

  /** Writes what there is, one part after the other. A loop: a recursion would grow too deep. */
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
    Trouble.Kind trouble = reply.trouble().map(Trouble::kind).orElse(null);
    if (trouble == null || trouble == Trouble.Kind.RESET_AFTER) {
      LastHttpContent end = Responses.end(reply.response().orElseThrow());
      context.writeAndFlush(end).addListener(written -> ifRunning(() -> sent(trouble != null)));
    } else {
      goWrong(reply.trouble().get());
    }
  }

  private void sent(boolean thenReset) {
    exchange.delivered();
    if (thenReset) {
      peer.reset();
    } else if (!keepAlive) {
      peer.close();
    }
    end(!thenReset && keepAlive);
  }

  private void goWrong(Trouble trouble) {
    switch (trouble.kind()) {
      case SILENCE -> {
        // Nothing is done until somebody hangs up, or the test ends.
        return;
      }
      case CONNECTION_CLOSED -> peer.close();
      case NO_HTTP -> {
        peer.raw(trouble.raw().bytes());
        peer.close();
      }
      case STREAM_RESET -> peer.resetStream();
      case GO_AWAY -> peer.goAway();
      case CUT_SHORT -> cutShort();
      case BROKEN_CHUNKS -> breakOffBody();
      default -> peer.reset();
    }
    exchange.delivered();
    if (!ended) {
      end(false);
    }
  }

  private void cutShort() {
    if (peer.isHttp2()) {
      context.writeAndFlush(LastHttpContent.EMPTY_LAST_CONTENT);
    } else {
      peer.close();
    }
  }

  /** A body of unknown length ends in disorder. */
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

  private boolean wentWrong(Trouble.Kind kind) {
    return reply.trouble().filter(trouble -> trouble.kind() == kind).isPresent();
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
    if (leaveFeed != null) {
      leaveFeed.run();
    }
    parts.close();
    done.accept(servesOn);
  }
}
