// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.http.Request;
import dev.cachette.http.Response;

/** Passes the calls of a session on to their real services, and keeps what becomes of them. */
public interface Capturing {

  /**
   * Begins with a call. May wait.
   *
   * @param request the request
   * @param maker who made it
   * @param protocol its HTTP version
   */
  Captured begin(Request request, Maker maker, String protocol);

  /** One call. */
  interface Captured extends RealCallObserver {

    /** Returns the request that is passed on. */
    Request request();

    /** Returns the beginning of a response as the caller gets it. */
    default Response passedBack(Response head) {
      return head;
    }

    /**
     * Returns true if the caller receives the reason for no response; otherwise it sees that its
     * connection fails.
     */
    default boolean explainsFailures() {
      return false;
    }
  }
}
