// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.agent;

import dev.cachette.answer.Fault;
import java.io.IOException;
import java.net.ConnectException;
import java.net.InetSocketAddress;
import java.time.Instant;
import java.util.Optional;
import java.util.OptionalInt;

/** Decides about destinations, and where their calls arrive. */
public interface Destinations {

  /** Returns true if calls to this host and port are intercepted although it is this machine. */
  boolean wantsLocal(String host, int port);

  /**
   * Returns true if connections to this host are let through.
   *
   * @param port the port, or none while its name is resolved
   */
  boolean letsThrough(String host, OptionalInt port);

  /**
   * Notes a connection that is let through.
   *
   * @param yet what is true until it is connected; empty if that will not be known
   * @return what to do when it is connected
   */
  Runnable connectsThrough(String host, int port, String yet);

  /** Returns the fault that the next look-up or connection gets, and moves on past it. */
  Optional<Fault> meet(Fault.Stage stage, String host, OptionalInt port);

  /** Returns the time by the clock of the session. */
  Instant now();

  /** Returns why a connection over HTTP/3 is refused, which is not intercepted. */
  ConnectException refuseHttp3(String host, int port);

  /**
   * Returns the address for calls to this host and port, which accepts connections already.
   *
   * @throws java.net.ConnectException if no HTTP can be expected there; the message says why
   * @throws IOException if no address is available
   */
  InetSocketAddress listenerFor(String host, int port, ConnectingClient client) throws IOException;
}
