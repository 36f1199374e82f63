package dev.cachette.answer;

import java.util.List;
import java.util.stream.Stream;

/**
 * When the parts of an answer are sent. Times are real ones, by the system's clock.
 *
 * @param before how long nothing is sent
 * @param beforeBody how long nothing follows the headers
 * @param pieces how many pieces the body is sent in, 1 for all of it at once
 * @param between how long nothing is sent between two pieces
 * @param bytesPerSecond how fast the body is sent, 0 for as fast as it goes
 * @param gates what must be open before anything is sent
 */
public record Timing(
    Span before, Span beforeBody, int pieces, Span between, long bytesPerSecond, List<Gate> gates) {

  /** At once, and as fast as it goes. */
  public static final Timing AT_ONCE = new Timing(Span.NONE, Span.NONE, 1, Span.NONE, 0, List.of());

  /** Copies the gates. */
  public Timing {
    gates = List.copyOf(gates);
  }

  Timing before(Span span) {
    return new Timing(span, beforeBody, pieces, between, bytesPerSecond, gates);
  }

  Timing beforeBody(Span span) {
    return new Timing(before, span, pieces, between, bytesPerSecond, gates);
  }

  Timing pieces(int count, Span pause) {
    if (count < 1) {
      throw new IllegalArgumentException(
          "A body is sent in 1 piece or more, not in " + count + ".");
    }
    return new Timing(before, beforeBody, count, pause, bytesPerSecond, gates);
  }

  Timing rate(long limit) {
    if (limit < 1) {
      throw new IllegalArgumentException("A rate is 1 byte per second or more, not " + limit + ".");
    }
    return new Timing(before, beforeBody, pieces, between, limit, gates);
  }

  Timing behind(Gate gate) {
    if (gate == null) {
      throw new IllegalArgumentException("heldBy(gate) was given null. Mend: new Gate().");
    }
    List<Gate> more = Stream.concat(gates.stream(), Stream.of(gate)).toList();
    return new Timing(before, beforeBody, pieces, between, bytesPerSecond, more);
  }
}
