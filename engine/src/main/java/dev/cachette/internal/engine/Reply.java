// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.answer.Fault;
import dev.cachette.http.Body;
import dev.cachette.http.Response;
import dev.cachette.internal.answer.Delivery;
import dev.cachette.internal.answer.LiveBody;
import java.util.List;
import java.util.Optional;

/**
 * The reply to one call, with all decisions made.
 *
 * @param response the response; empty for a fault without one
 * @param pieces the body of the response, as it is sent; may be empty if another source follows
 * @param isStream whether the length is unknown beforehand
 * @param live the source of further pieces: the test, or a real service
 * @param file the file that the body is streamed from
 * @param fault the fault, if there is one
 * @param schedule when the parts are sent
 */
public record Reply(
    Optional<Response> response,
    List<Body> pieces,
    boolean isStream,
    Optional<LiveBody> live,
    Optional<Delivery.Source> file,
    Optional<Fault> fault,
    Schedule schedule) {

  private static final int SWITCHING_PROTOCOLS = 101;

  /** Copies the pieces. */
  public Reply {
    pieces = List.copyOf(pieces);
  }

  /** Returns a complete response, sent immediately. */
  public static Reply of(Response response) {
    return new Reply(
        Optional.of(response),
        List.of(response.body()),
        false,
        Optional.empty(),
        Optional.empty(),
        Optional.empty(),
        Schedule.AT_ONCE);
  }

  /** Returns a body in pieces, with unknown length. */
  static Reply stream(
      Response response, List<Body> pieces, Optional<LiveBody> live, Schedule when) {
    return new Reply(
        Optional.of(response), pieces, true, live, Optional.empty(), Optional.empty(), when);
  }

  /**
   * Returns a body that is sent as it arrives.
   *
   * @param isLengthKnown whether the headers have its length
   */
  static Reply live(Response response, LiveBody body, boolean isLengthKnown) {
    return new Reply(
        Optional.of(response),
        List.of(),
        !isLengthKnown,
        Optional.of(body),
        Optional.empty(),
        Optional.empty(),
        Schedule.AT_ONCE);
  }

  /** Returns a fault instead of a response. */
  static Reply fault(Fault fault, Schedule when) {
    return new Reply(
        Optional.empty(),
        List.of(),
        false,
        Optional.empty(),
        Optional.empty(),
        Optional.of(fault),
        when);
  }

  /** Returns this reply with other headers; the body is sent as before. */
  Reply with(Response other) {
    return new Reply(Optional.of(other), pieces, isStream, live, file, fault, schedule);
  }

  Reply in(List<Body> otherPieces, Schedule when) {
    return new Reply(response, otherPieces, isStream, live, file, fault, when);
  }

  Reply from(Delivery.Source source) {
    return new Reply(response, List.of(), isStream, live, Optional.of(source), fault, schedule);
  }

  Reply with(Fault itGoesWrong) {
    return new Reply(response, pieces, isStream, live, file, Optional.of(itGoesWrong), schedule);
  }

  /** Returns the connection to the service, if it is used for another protocol now. */
  public Optional<RealResponse.Upgraded> upgrade() {
    boolean isSwitching = response.filter(it -> it.status() == SWITCHING_PROTOCOLS).isPresent();
    return live.filter(RealResponse.Upgraded.class::isInstance)
        .filter(connection -> isSwitching)
        .map(RealResponse.Upgraded.class::cast);
  }

  /** Returns true if it is one response, sent immediately and as a whole. */
  public boolean isPlain() {
    return schedule == Schedule.AT_ONCE
        && !isStream
        && fault.isEmpty()
        && live.isEmpty()
        && file.isEmpty();
  }
}
