// SPDX-License-Identifier: Apache-2.0
package dev.cachette.answer;

import dev.cachette.internal.answer.Span;
import dev.cachette.internal.answer.Timing;
import dev.cachette.internal.misuse.Refusals;
import java.time.Duration;

/**
 * An answer with timing: delays, rates and gates. No delay blocks a thread, and all of them end
 * when the caller disconnects or the test ends.
 *
 * <p>Durations are real time, whatever the session's clock says; random ones are drawn with the
 * seed of the settings. Each method returns a new answer, and throws {@link
 * IllegalArgumentException} for null or negative arguments.
 *
 * @param <T> the type of the answer
 */
public abstract sealed class Timed<T extends Timed<T>> implements Answer
    permits ResponseAnswer, StreamAnswer, RealAnswer, Fault {

  Timed() {}

  /** Returns the timing; {@link Timing#AT_ONCE} by default. */
  abstract Timing timing();

  /** Returns the same answer with another timing. */
  abstract T timed(Timing timing);

  /** Delays the answer, in real time, or until the clock of the session is moved past the delay. */
  public final T delayed(Duration delay) {
    return timed(timing().before(Span.of(delay)));
  }

  /** Delays the answer for a random time between the shortest and the longest, both included. */
  public final T delayed(Duration least, Duration most) {
    return timed(timing().before(new Span(least, most)));
  }

  /** Pauses between the headers and the body. */
  public final T pausedBeforeBody(Duration pause) {
    return timed(timing().beforeBody(Span.of(pause)));
  }

  /** As {@link #pausedBeforeBody(Duration)}, for a random time. */
  public final T pausedBeforeBody(Duration least, Duration most) {
    return timed(timing().beforeBody(new Span(least, most)));
  }

  /**
   * Sends the body in this many pieces of about equal size.
   *
   * @param pause the pause between two pieces
   */
  public final T inPieces(int count, Duration pause) {
    return timed(timing().pieces(count, Span.of(pause)));
  }

  /** As {@link #inPieces(int, Duration)}, with random pauses. */
  public final T inPieces(int count, Duration least, Duration most) {
    return timed(timing().pieces(count, new Span(least, most)));
  }

  /** Sends the body at this many bytes per second. */
  public final T atRate(long bytesPerSecond) {
    return timed(timing().rate(bytesPerSecond));
  }

  /**
   * Holds the answer until the test opens the gate. If there are several gates, all must be open.
   */
  public final T heldBy(Gate gate) {
    if (gate == null) {
      throw Refusals.argument("heldBy(gate) was given null. Fix: new Gate().");
    }
    return timed(timing().behind(gate.state()));
  }
}
