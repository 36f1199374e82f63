package dev.cachette.answer;

import dev.cachette.http.Body;
import java.util.ArrayList;
import java.util.List;

/**
 * The body of a response that the test sends piece by piece, when it likes:
 *
 * <pre>{@code
 * Feed arrivals = new Feed();
 * net.stub("GET https://berths.example/v1/arrivals").answer(stream("text/event-stream", arrivals));
 *
 * desk.follow();
 * arrivals.send(Event.of("Kittiwake").text());
 * arrivals.end();
 * }</pre>
 *
 * <p>Every call that gets this body gets all of it, what was sent before it came included. Safe to
 * use from any thread.
 */
public final class Feed {

  private final List<Body> pieces = new ArrayList<>();
  private final List<Reader> readers = new ArrayList<>();
  private boolean ended;
  private boolean broken;

  /** A feed that has sent nothing yet. */
  public Feed() {}

  /**
   * Sends a text, in UTF-8.
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
   * @throws IllegalArgumentException if they are null or none
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

  /** Ends the body in order. Ending again does nothing. */
  public void end() {
    finish(false);
  }

  /** Breaks the body off: its connection, or its HTTP/2 stream, is reset. */
  public void breakOff() {
    finish(true);
  }

  /** How many callers read it now. */
  public synchronized int readers() {
    return readers.size();
  }

  /** Whoever passes the pieces on; called under the feed's lock, so it must not wait. */
  public interface Reader {

    /** The next piece. */
    void piece(Body piece);

    /**
     * There are no more.
     *
     * @param inOrder false if the body is broken off
     */
    void end(boolean inOrder);
  }

  /**
   * Gives a reader all there was so far, and from now on what comes.
   *
   * @return ends it for this reader
   */
  public synchronized Runnable read(Reader reader) {
    pieces.forEach(reader::piece);
    if (ended) {
      reader.end(!broken);
      return () -> {};
    }
    readers.add(reader);
    return () -> leave(reader);
  }

  private synchronized void send(Body piece) {
    if (ended) {
      throw new IllegalStateException(
          "This feed has ended, so nothing more can be sent. Mend: send it before end(), or take a "
              + "new Feed().");
    }
    pieces.add(piece);
    readers.forEach(reader -> reader.piece(piece));
  }

  private synchronized void finish(boolean brokenOff) {
    if (!ended) {
      ended = true;
      broken = brokenOff;
      readers.forEach(reader -> reader.end(!brokenOff));
      readers.clear();
    }
  }

  private synchronized void leave(Reader reader) {
    readers.remove(reader);
  }

  private static void requireSome(boolean missing) {
    if (missing) {
      throw new IllegalArgumentException("A piece of a feed must not be null or empty.");
    }
  }
}
