package dev.cachette.answer;

import java.time.Duration;

/**
 * An answer whose time can be told. None of it keeps a thread waiting, and all of it ends at once
 * when the caller hangs up or the test ends.
 *
 * <p>Durations are real time, whatever the clock of the settings says; a random one is drawn by the
 * seed of the settings. Each method returns a new answer, and throws {@link
 * IllegalArgumentException} for what is null or negative.
 *
 * @param <T> the kind of answer
 */
public interface Timed<T> {

  /** When its parts are sent; {@link Timing#AT_ONCE} unless one of these methods says otherwise. */
  Timing timing();

  /** The same answer, sent by another timing. */
  T timed(Timing timing);

  /** Sends nothing for so long. */
  default T delayed(Duration delay) {
    return timed(timing().before(Span.of(delay)));
  }

  /** Sends nothing for a time drawn at random, the shortest and the longest included. */
  default T delayed(Duration least, Duration most) {
    return timed(timing().before(new Span(least, most)));
  }

  /** Sends status and headers, then nothing for so long, then the body. */
  default T pausedBeforeBody(Duration pause) {
    return timed(timing().beforeBody(Span.of(pause)));
  }

  /** As {@link #pausedBeforeBody(Duration)}, for a time drawn at random. */
  default T pausedBeforeBody(Duration least, Duration most) {
    return timed(timing().beforeBody(new Span(least, most)));
  }

  /**
   * Sends the body in so many pieces of about equal size.
   *
   * @param pause how long nothing is sent between two of them
   */
  default T inPieces(int count, Duration pause) {
    return timed(timing().pieces(count, Span.of(pause)));
  }

  /** As {@link #inPieces(int, Duration)}, each pause drawn at random. */
  default T inPieces(int count, Duration least, Duration most) {
    return timed(timing().pieces(count, new Span(least, most)));
  }

  /** Sends the body at so many bytes per second. */
  default T atRate(long bytesPerSecond) {
    return timed(timing().rate(bytesPerSecond));
  }

  /** Sends nothing until the test opens the gate. Of several gates, all must be open. */
  default T heldBy(Gate gate) {
    return timed(timing().behind(gate));
  }
}
