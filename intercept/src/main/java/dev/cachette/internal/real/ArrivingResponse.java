// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.real;

import dev.cachette.cassette.Exchange;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Response;
import dev.cachette.internal.answer.FeedReader;
import dev.cachette.internal.engine.RealResponse;
import io.netty.buffer.Unpooled;
import io.netty.channel.Channel;
import io.netty.channel.ChannelHandlerContext;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * A response on its way: filled by the thread of its connection, and passed on to a reader as it
 * arrives. Thread-safe.
 */
final class ArrivingResponse implements RealResponse.Upgraded {

  private static final int LARGEST_BODY = 256 << 20;

  /** If a reader has not passed on more than this, the service has to wait. */
  private static final long MOST_WAITING = 1 << 20;

  /** The time within which arriving bytes are one piece. */
  private static final Duration TOGETHER = Duration.ofMillis(5);

  /** A body that arrives faster has not been streamed. */
  private static final Duration STREAMED = Duration.ofMillis(50);

  private static final int MOST_PIECES = 10_000;

  /** A body that comes soon after its head is sent as a whole. */
  private static final long SOON_MILLIS = 10;

  /** The same for a short body: if its length is known, it is no stream of events. */
  private static final long SOON_IF_SHORT_MILLIS = 250;

  private static final Pattern SHORT = Pattern.compile("[0-9]{1,5}");

  private final long began = System.nanoTime();
  private final CompletableFuture<Response> head = new CompletableFuture<>();
  private final CompletableFuture<Response> whole = new CompletableFuture<>();
  private final ByteArrayOutputStream body = new ByteArrayOutputStream();
  private final List<Exchange.Piece> pieces = new ArrayList<>();

  private @Nullable Channel channel;
  private @Nullable FeedReader reader;

  /** Set once another protocol is spoken. */
  private volatile @Nullable ChannelHandlerContext raw;

  private volatile boolean connectionKept;

  private Headers trailers = Headers.none();
  private Optional<String> length = Optional.empty();
  private long waiting;

  /** Completed with the response without its body; failed if there is none. */
  CompletableFuture<Response> head() {
    return head;
  }

  /** Completed with the whole response, or what has arrived when its reader left. */
  CompletableFuture<Response> whole() {
    return whole;
  }

  /** Waits a moment for the end; returns true if it has come. */
  boolean isCompleteSoon() {
    try {
      boolean isShort = length().filter(it -> SHORT.matcher(it).matches()).isPresent();
      long soon = isShort ? SOON_IF_SHORT_MILLIS : SOON_MILLIS;
      whole.get(soon, TimeUnit.MILLISECONDS);
      return true;
    } catch (ExecutionException failed) {
      return true;
    } catch (TimeoutException later) {
      return false;
    } catch (InterruptedException interrupted) {
      Thread.currentThread().interrupt();
      return false;
    }
  }

  /** Returns when the pieces of the body arrived; empty if it was not streamed. */
  synchronized List<Exchange.Piece> pieces() {
    boolean atOnce =
        pieces.size() < 2
            || pieces.get(pieces.size() - 1).at().minus(pieces.get(0).at()).compareTo(STREAMED) < 0;
    return atOnce ? List.of() : List.copyOf(pieces);
  }

  /** Sets the connection or stream, to slow it down and to close it. */
  synchronized void on(Channel connection) {
    channel = connection;
  }

  /** Its connection is for other calls from now on. */
  synchronized void keepConnection() {
    connectionKept = true;
    channel = null;
  }

  /** Returns true if its connection is for other calls. */
  boolean isConnectionKept() {
    return connectionKept;
  }

  /** Returns the length of its body, if it is known. */
  synchronized Optional<String> length() {
    return length;
  }

  /**
   * Sets what precedes the body.
   *
   * @param contentLength the length of the body, if it is known
   */
  synchronized void begin(Response withoutBody, Optional<String> contentLength) {
    length = contentLength;
    head.complete(withoutBody);
  }

  /**
   * Notes that another protocol is spoken from now on: bytes are passed on, and not kept.
   *
   * @param connection where they are written, past the handlers of HTTP
   */
  synchronized void upgrade(ChannelHandlerContext connection) {
    raw = connection;
  }

  @Override
  public void send(byte[] bytes) {
    ChannelHandlerContext to = raw;
    if (to != null) {
      to.writeAndFlush(Unpooled.wrappedBuffer(bytes));
    }
  }

  /** Adds bytes of the body. */
  synchronized void add(byte[] bytes) {
    if (bytes.length == 0 || whole.isDone()) {
      return;
    }
    if (body.size() + (long) bytes.length > LARGEST_BODY) {
      fail(new IOException("its body is larger than " + (LARGEST_BODY >> 20) + " MiB"));
      return;
    }
    if (raw == null || reader == null) {
      body.writeBytes(bytes);
    }
    if (raw == null) {
      addPiece(Duration.ofNanos(System.nanoTime() - began), bytes.length);
    }
    if (reader != null) {
      reader.piece(Body.of(bytes));
      waiting += bytes.length;
      read(waiting < MOST_WAITING);
    }
  }

  private void addPiece(Duration at, int size) {
    int last = pieces.size() - 1;
    boolean joins =
        last >= 0
            && (last + 1 == MOST_PIECES || at.minus(pieces.get(last).at()).compareTo(TOGETHER) < 0);
    if (joins) {
      Exchange.Piece before = pieces.get(last);
      pieces.set(last, new Exchange.Piece(before.at(), before.size() + size));
    } else {
      pieces.add(new Exchange.Piece(at, size));
    }
  }

  /** Ends the response. */
  synchronized void end(Headers after) {
    trailers = after;
    complete();
  }

  private void complete() {
    if (!head.isDone()) {
      fail(new IOException("no response"));
      return;
    }
    Response start = head.join();
    whole.complete(
        new Response(start.status(), start.headers(), Body.of(body.toByteArray()), trailers));
    if (reader != null) {
      reader.end(trailers);
    }
  }

  /** Ends the response abnormally; no effect after its end. */
  synchronized void fail(Throwable cause) {
    head.completeExceptionally(cause);
    if (whole.completeExceptionally(cause) && reader != null) {
      reader.broken();
    }
  }

  @Override
  public synchronized Runnable read(FeedReader newReader) {
    reader = newReader;
    if (body.size() > 0) {
      newReader.piece(Body.of(body.toByteArray()));
      if (raw != null) {
        body.reset();
      }
    }
    if (whole.isCompletedExceptionally()) {
      newReader.broken();
    } else if (whole.isDone()) {
      newReader.end(trailers);
    }
    return this::stop;
  }

  @Override
  public synchronized void passedOn() {
    waiting = 0;
    read(true);
  }

  private void read(boolean on) {
    if (channel != null && channel.config().isAutoRead() != on) {
      channel.config().setAutoRead(on);
    }
  }

  @Override
  public synchronized void stop() {
    if (!whole.isDone()) {
      complete();
    }
  }
}
