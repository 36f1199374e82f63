package dev.cachette.internal.stub;

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
   * Returns true if the destination is an address of Cachette's own, which would be an endless
   * loop.
   */
  default boolean isOurself(Request request) {
    return false;
  }
}
