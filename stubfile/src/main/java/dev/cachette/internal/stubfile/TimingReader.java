// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import dev.cachette.answer.Timed;
import dev.cachette.internal.fields.Durations;
import dev.cachette.internal.fields.Fields;
import java.time.Duration;
import java.util.List;
import java.util.Optional;

/** Reads the timing of an answer. */
final class TimingReader {

  private TimingReader() {}

  static <T extends Timed<T>> T timed(T answer, Fields fields) {
    return fields.hasAny(AnswerKeys.TIMING.names()) ? retimed(answer, fields) : answer;
  }

  private static <T extends Timed<T>> T retimed(T answer, Fields fields) {
    T timed = answer;
    List<Duration> delay = span(fields, "delay");
    if (!delay.isEmpty()) {
      timed = timed.delayed(delay.get(0), delay.get(1));
    }
    List<Duration> beforeBody = span(fields, "pauseBeforeBody");
    if (!beforeBody.isEmpty()) {
      timed = timed.pausedBeforeBody(beforeBody.get(0), beforeBody.get(1));
    }
    List<Duration> pause = span(fields, "pause");
    Optional<Integer> pieces = fields.positive("pieces");
    if (pieces.isPresent() || !pause.isEmpty()) {
      List<Duration> between = pause.isEmpty() ? List.of(Duration.ZERO, Duration.ZERO) : pause;
      timed = timed.inPieces(pieces.orElse(1), between.get(0), between.get(1));
    }
    Optional<Integer> rate = fields.positive("rate");
    return rate.isPresent() ? timed.atRate(rate.get()) : timed;
  }

  /** Reads one duration, or the shortest and the longest of a random one. */
  private static List<Duration> span(Fields fields, String name) {
    List<Duration> all =
        fields.list(name).stream().map(node -> Durations.parse(node.text())).toList();
    if (all.size() > 2) {
      throw new IllegalArgumentException(
          "\"" + name + "\" needs one duration, or the shortest and the longest.");
    }
    return all.size() == 1 ? List.of(all.get(0), all.get(0)) : all;
  }
}
