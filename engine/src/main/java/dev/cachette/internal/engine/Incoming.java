// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.http.Request;
import dev.cachette.internal.limit.TimeLimit;
import dev.cachette.internal.limit.TimeLimitExceeded;
import dev.cachette.match.MatchInternals;
import dev.cachette.match.Received;
import java.time.Duration;
import java.util.Optional;

/**
 * A request that has arrived, until it is decided who answers it. Conditions may contain user code,
 * or be slow with what a caller sends; so there is a limit on the time, and a way to give up.
 */
public final class Incoming {

  private final Responder responder;
  private final Arrival arrival;
  private final Received received;
  private final TimeLimit limit;

  Incoming(Responder responder, Arrival arrival, Request request, TimeLimit limit) {
    this.responder = responder;
    this.arrival = arrival;
    this.received = MatchInternals.received(request);
    this.limit = limit;
  }

  /** Returns the request. */
  public Request request() {
    return received.request();
  }

  /** Decides, if that certainly takes little time; empty if it may take long. */
  public Optional<PendingCall> decideQuickly() {
    boolean encoded = received.header("content-encoding").isPresent();
    return encoded || arrival.isLate()
        ? Optional.empty()
        : responder.decideQuickly(arrival, received);
  }

  /** Decides, and explains a call that nothing answers. User code may take any time. */
  public PendingCall decide() {
    limit.restart();
    if (responder.isTooLarge(received)) {
      return responder.tooLarge(arrival, received);
    }
    try {
      PendingCall decided = limit.within(() -> responder.decide(arrival, received));
      if (decided.isUnexpected()) {
        limit.restart();
        limit.within(decided::explain);
      }
      return decided;
    } catch (TimeLimitExceeded exceeded) {
      return responder.undecided(arrival, received, exceeded);
    }
  }

  /** Returns a call that failed, which fails the test. */
  public PendingCall fail(Throwable thrown) {
    return responder.failed(arrival, received, thrown);
  }

  /** Returns how long to wait for {@link #decide} from now on; negative for no longer. */
  public Duration patience() {
    return limit.left();
  }

  /**
   * Gives up: {@link #decide} ends soon, or never.
   *
   * @return the call that says so, and fails the test
   */
  public PendingCall giveUp() {
    limit.giveUp();
    return responder.undecided(arrival, received, limit.exceeded());
  }
}
