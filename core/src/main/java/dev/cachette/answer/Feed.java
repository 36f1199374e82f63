// SPDX-License-Identifier: Apache-2.0
package dev.cachette.answer;

import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.internal.answer.FeedReader;
import dev.cachette.internal.misuse.Refusals;
import java.util.ArrayList;
import java.util.List;

/**
 * The body of a response that the test sends piece by piece, at any time:
 *
 * <pre>{@code
 * Feed arrivals = new Feed();
 * net.stub("GET https://berths.example/v1/arrivals").answer(stream("text/event-stream", arrivals));
 * desk.follow();
 * arrivals.send(Event.of("Kittiwake").text());
 * arrivals.end();
 * }</pre>
 *
 * <p>Every call that gets this body gets all of it, including what was sent before the call.
 * Thread-safe.
 */
public final class Feed {

  private final List<Body> pieces = new ArrayList<>();
  private final List<FeedReader> readers = new ArrayList<>();
  private boolean ended;
  private boolean broken;

  /** Creates a feed that has sent nothing yet. */
  public Feed() {}

  /**
   * Sends text, in UTF-8.
   *
   * @throws IllegalArgumentException if it is null or empty
   * @throws IllegalStateException if the feed has ended
   */
  public void send(String text) {
    requireSome(text == null || text.isEmpty());
    send(Body.of(text));
  }

  /**
   * Sends bytes.
   *
   * @throws IllegalArgumentException if they are null or empty
   * @throws IllegalStateException if the feed has ended
   */
  public void send(byte[] bytes) {
    requireSome(bytes == null || bytes.length == 0);
    send(Body.of(bytes));
  }

  /**
   * Sends a Server-Sent Event.
   *
   * @throws IllegalStateException if the feed has ended
   */
  public void send(Event event) {
    requireSome(event == null);
    send(Body.of(event.text()));
  }

  /** Ends the body normally. Further calls have no effect. */
  public void end() {
    finish(false);
  }

  /** Aborts the body: its connection, or its HTTP/2 stream, is reset. */
  public void abort() {
    finish(true);
  }

  /** Returns the number of callers that are reading it. */
  public synchronized int readers() {
    return readers.size();
  }

  /**
   * Sends a reader everything sent so far, and what is sent from now on.
   *
   * @return ends the subscription
   */
  synchronized Runnable read(FeedReader reader) {
    pieces.forEach(reader::piece);
    if (ended) {
      end(reader);
      return () -> {};
    }
    readers.add(reader);
    return () -> leave(reader);
  }

  private synchronized void send(Body piece) {
    if (ended) {
      throw Refusals.state(
          "This feed has ended and cannot send any more. Fix: send before end(), or create a new"
              + " Feed().");
    }
    pieces.add(piece);
    readers.forEach(reader -> reader.piece(piece));
  }

  private synchronized void finish(boolean brokenOff) {
    if (!ended) {
      ended = true;
      broken = brokenOff;
      readers.forEach(this::end);
      readers.clear();
    }
  }

  private void end(FeedReader reader) {
    if (broken) {
      reader.broken();
    } else {
      reader.end(Headers.none());
    }
  }

  private synchronized void leave(FeedReader reader) {
    readers.remove(reader);
  }

  private static void requireSome(boolean missing) {
    if (missing) {
      throw Refusals.argument("A piece of a feed must not be null or empty.");
    }
  }
}
