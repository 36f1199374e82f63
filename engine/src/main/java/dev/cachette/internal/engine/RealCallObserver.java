// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.cassette.Exchange;
import java.util.Optional;

/** Sees what becomes of a call to a real service. */
@FunctionalInterface
public interface RealCallObserver {

  /** The response is complete, or its reader has left. Called once. */
  void ended(Exchange exchange);

  /** Returns true if it follows the connection. */
  default boolean followsConnection() {
    return false;
  }

  /**
   * Returns the number of the caller's connection, whose calls share a connection to the service as
   * well; empty if the call has one of its own.
   */
  default Optional<Integer> callersConnection() {
    return Optional.empty();
  }

  /**
   * The connection is made, and carries nothing but this call now; the request is sent after this.
   * May wait.
   *
   * @param port its port on this machine
   */
  default void connectedFrom(int port) {}
}
