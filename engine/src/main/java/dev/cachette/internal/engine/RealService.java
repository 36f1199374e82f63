// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.cassette.Exchange;
import dev.cachette.http.Request;

/** Calls the destination that a client meant. */
@FunctionalInterface
public interface RealService {

  /**
   * Sends a request to its destination, and waits for the response.
   *
   * @param protocol the HTTP version of the caller, used if the service supports it
   * @return the exchange, with a response
   * @throws RealServiceFailed if there is none
   */
  Exchange call(Request request, String protocol) throws RealServiceFailed;

  /**
   * Sends a request to its destination, and returns when the response has begun to arrive, or is
   * complete if it comes quickly.
   *
   * @param protocol as in {@link #call}
   * @param observer receives the exchange once, when the response is complete or its reader has
   *     left
   * @throws RealServiceFailed if there is no response; the observer gets nothing then
   */
  default RealResponse begin(Request request, String protocol, RealCallObserver observer)
      throws RealServiceFailed {
    Exchange exchange = call(request, protocol);
    observer.ended(exchange);
    return RealResponse.complete(exchange.response().orElseThrow());
  }

  /**
   * Returns true if a caller gets a failure as a response that explains it: one that is connected
   * to Cachette knowingly, as to a proxy or server. Others meet the fault itself.
   */
  default boolean explainsFailures() {
    return false;
  }

  /**
   * Returns true if the destination is an address of Cachette's own, which would be an endless
   * loop.
   */
  default boolean isOurself(Request request) {
    return false;
  }
}
