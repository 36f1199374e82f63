// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.http.Body;
import dev.cachette.internal.answer.GateState;
import dev.cachette.internal.answer.Timing;
import dev.cachette.internal.template.TemplateState;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * When the parts of one reply are sent: a timing with its random durations drawn.
 *
 * @param before the delay before the headers
 * @param beforeBody the pause between headers and body
 * @param between the pauses after each piece but the last
 * @param bytesPerSecond the rate of the body, 0 for no limit
 * @param gates the gates that must be open before anything is sent
 */
public record Schedule(
    Duration before,
    Duration beforeBody,
    List<Duration> between,
    long bytesPerSecond,
    List<GateState> gates) {

  static final Schedule AT_ONCE =
      new Schedule(Duration.ZERO, Duration.ZERO, List.of(), 0, List.of());

  /** Copies the lists. */
  public Schedule {
    between = List.copyOf(between);
    gates = List.copyOf(gates);
  }

  /** Returns a delay before everything. */
  static Schedule after(Duration before) {
    return new Schedule(before, Duration.ZERO, List.of(), 0, List.of());
  }

  static Schedule of(Timing timing, int pieces, TemplateState templateState) {
    if (timing == Timing.AT_ONCE && pieces <= 1) {
      return AT_ONCE;
    }
    List<Duration> pauses = new ArrayList<>();
    Duration before = timing.before().draw(templateState::between);
    Duration beforeBody = timing.beforeBody().draw(templateState::between);
    for (int piece = 1; piece < pieces; piece++) {
      pauses.add(timing.between().draw(templateState::between));
    }
    return new Schedule(before, beforeBody, pauses, timing.bytesPerSecond(), timing.gates());
  }

  /** Splits a body into pieces of about equal size; fewer if it has fewer bytes. */
  static List<Body> split(Body body, int pieces) {
    int count = Math.max(1, Math.min(pieces, body.size()));
    if (count == 1) {
      return List.of(body);
    }
    byte[] all = body.bytes();
    List<Body> parts = new ArrayList<>(count);
    int from = 0;
    for (int part = 1; part <= count; part++) {
      int to = (int) ((long) all.length * part / count);
      parts.add(Body.of(Arrays.copyOfRange(all, from, to)));
      from = to;
    }
    return parts;
  }
}
