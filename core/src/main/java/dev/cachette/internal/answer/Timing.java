// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.answer;

import dev.cachette.internal.misuse.Refusals;
import java.util.List;
import java.util.stream.Stream;

/**
 * When the parts of an answer are sent. Durations are real time, by the system clock.
 *
 * @param before the delay before the headers
 * @param beforeBody the pause between headers and body
 * @param pieces the number of pieces of the body, 1 for all of it at once
 * @param between the pause between two pieces
 * @param bytesPerSecond the rate of the body, 0 for no limit
 * @param gates the gates that must be open before anything is sent
 */
public record Timing(
    Span before,
    Span beforeBody,
    int pieces,
    Span between,
    long bytesPerSecond,
    List<GateState> gates) {

  /** Immediately, and without a rate limit. */
  public static final Timing AT_ONCE = new Timing(Span.NONE, Span.NONE, 1, Span.NONE, 0, List.of());

  /** Copies the gates. */
  public Timing {
    gates = List.copyOf(gates);
  }

  /** Returns this timing with a delay before the headers. */
  public Timing before(Span span) {
    return new Timing(span, beforeBody, pieces, between, bytesPerSecond, gates);
  }

  /** Returns this timing with a pause between headers and body. */
  public Timing beforeBody(Span span) {
    return new Timing(before, span, pieces, between, bytesPerSecond, gates);
  }

  /** Returns this timing with pieces and pauses between them. */
  public Timing pieces(int count, Span pause) {
    if (count < 1) {
      throw Refusals.argument("A body is sent in 1 or more pieces, not in " + count + ".");
    }
    return new Timing(before, beforeBody, count, pause, bytesPerSecond, gates);
  }

  /** Returns this timing with a rate. */
  public Timing rate(long limit) {
    if (limit < 1) {
      throw Refusals.argument("A rate is 1 or more bytes per second, not " + limit + ".");
    }
    return new Timing(before, beforeBody, pieces, between, limit, gates);
  }

  /** Returns this timing with a further gate. */
  public Timing behind(GateState gate) {
    List<GateState> more = Stream.concat(gates.stream(), Stream.of(gate)).toList();
    return new Timing(before, beforeBody, pieces, between, bytesPerSecond, more);
  }
}
