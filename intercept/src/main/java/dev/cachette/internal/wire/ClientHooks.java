// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import dev.cachette.http.Request;
import dev.cachette.internal.engine.Maker;
import java.time.Duration;

/**
 * Knows clients by the ports that they call from. Those in other JVMs cannot be left unserved, and
 * have their own clocks.
 */
public interface ClientHooks {

  /** Nothing is known. */
  ClientHooks UNKNOWN =
      new ClientHooks() {
        @Override
        public Maker at(int port) {
          return Maker.UNKNOWN;
        }

        @Override
        public Maker at(int port, int stream) {
          return Maker.UNKNOWN;
        }
      };

  /** Returns who made the current request on a connection from this port. */
  Maker at(int port);

  /**
   * Returns who made the call that is this HTTP/2 stream of a connection; {@link Maker#UNKNOWN} for
   * clients that do not tell. To be asked once.
   */
  Maker at(int port, int stream);

  /**
   * Returns true if calls are attributed better on connections that carry one at a time: HTTP/1.1
   * is negotiated then with clients that offer it.
   */
  default boolean prefersHttp1() {
    return false;
  }

  /** Notes that the request is answered: what is sent next is another one. */
  default void answered(int port) {}

  /**
   * Notes that nobody serves a connection to this host until further notice.
   *
   * @param port the port of its client
   * @param end run once when the client uses it, before it does
   * @return false if it is not to be left unserved
   */
  default boolean leave(String host, int port, Runnable end) {
    return false;
  }

  /** Returns true if the client has not used such a connection yet; from now on it is served. */
  default boolean take(int port) {
    return false;
  }

  /**
   * Notes that this time has passed for a call that is never answered, by the clock of the session:
   * its client times out if it waits no longer than that.
   *
   * @return whether the client is reading, and only notices when something arrives
   */
  default boolean pass(int port, Request request, Duration time) {
    return false;
  }
}
