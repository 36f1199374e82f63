// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.http.Request;
import dev.cachette.match.MatchInternals;
import dev.cachette.match.Received;
import java.util.Optional;

/**
 * A call that has arrived, for which an answer is to be chosen.
 *
 * @param arrival how it arrived
 * @param received the request
 * @param described the call, as one to a service with an API description; empty if there is none
 */
record ArrivedCall(Arrival arrival, Received received, Optional<DescribedCall> described) {

  /** Returns a call. */
  static ArrivedCall of(Arrival arrival, Received received, Scopes scopes) {
    Request request = received.request();
    return new ArrivedCall(
        arrival,
        received,
        arrival.isLate()
            ? Optional.empty()
            : scopes.describing(request).map(service -> new DescribedCall(service, request)));
  }

  /** Returns the request. */
  Request request() {
    return received.request();
  }

  /** Returns the call with another request. */
  ArrivedCall of(Request other, Scopes scopes) {
    return of(arrival, MatchInternals.received(other), scopes);
  }

  /** Returns the call with the variables of a request line. */
  ArrivedCall with(Received matched) {
    return new ArrivedCall(arrival, matched, described);
  }
}
