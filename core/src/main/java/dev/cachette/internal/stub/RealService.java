package dev.cachette.internal.stub;

import dev.cachette.cassette.Exchange;
import dev.cachette.http.Request;

/** Reaches the destination that a caller meant. */
@FunctionalInterface
public interface RealService {

  /**
   * Sends a request to where it was meant to go, and waits for the response.
   *
   * @param protocol what the request came by, and is sent on by if the service speaks it
   * @return what came of it, with a response
   * @throws RealServiceFailed if there is none
   */
  Exchange call(Request request, String protocol) throws RealServiceFailed;

  /** Whether a request is meant for an address of ours, so that it would come back for ever. */
  default boolean isOurself(Request request) {
    return false;
  }
}
