// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.cassette.Exchange.Piece;
import dev.cachette.http.Body;
import dev.cachette.http.Response;
import dev.cachette.internal.cassette.LoadedCassette;
import dev.cachette.internal.explain.Answering;
import dev.cachette.result.StubReference;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/**
 * The answer of a cassette.
 *
 * @param call the call
 * @param recording the exchange that answers it
 */
record ReplayedAnswer(ArrivedCall call, LoadedCassette.Replayed recording) implements ChosenAnswer {

  @Override
  public Optional<StubReference> reference() {
    return Optional.of(recording.reference());
  }

  @Override
  public Reply reply(PendingCall pending) {
    call.described().ifPresent(it -> it.requireTaken(Answering.recording(recording.reference())));
    return replay();
  }

  @Override
  public boolean needsNewConnectionNext(ConnectionRules connections) {
    return RecordedFaults.isNextEarly(connections, call.request());
  }

  private Reply replay() {
    Duration time = recording.delay();
    if (recording.exchange().fault().isPresent()) {
      return Reply.fault(
          RecordedFaults.late(recording.exchange().fault().get()), Schedule.after(time));
    }
    Response response = recording.exchange().response().orElseThrow();
    if (recording.pauses().isEmpty()) {
      return time.isZero()
          ? Reply.of(response)
          : Reply.of(response).in(List.of(response.body()), Schedule.after(time));
    }
    List<Body> pieces = inPieces(response.body(), recording.exchange().pieces());
    Schedule schedule = new Schedule(time, Duration.ZERO, recording.pauses(), 0, List.of());
    return response.headers().has("content-length")
        ? Reply.of(response).in(pieces, schedule)
        : Reply.stream(response, pieces, Optional.empty(), schedule);
  }

  /** The body may have other bytes than when it was recorded: secrets are redacted and filled. */
  private static List<Body> inPieces(Body body, List<Piece> recorded) {
    long size = Math.max(1, recorded.stream().mapToLong(Piece::size).sum());
    byte[] all = body.bytes();
    List<Body> pieces = new ArrayList<>(recorded.size());
    long arrived = 0;
    int from = 0;
    for (Piece piece : recorded) {
      arrived += piece.size();
      int to = (int) (all.length * arrived / size);
      pieces.add(Body.of(Arrays.copyOfRange(all, from, to)));
      from = to;
    }
    return pieces;
  }
}
