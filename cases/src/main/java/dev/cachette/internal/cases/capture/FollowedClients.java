// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases.capture;

import dev.cachette.http.Request;
import dev.cachette.internal.engine.Maker;
import dev.cachette.internal.tunnel.TunnelledClients;
import dev.cachette.internal.wire.ClientHooks;
import java.time.Duration;

/**
 * Knows the clients of an application in another JVM, as the server that they call asks for it.
 *
 * @param clients asks the agents
 */
public record FollowedClients(TunnelledClients clients) implements ClientHooks {

  @Override
  public Maker at(int port) {
    return clients.at(port, 0);
  }

  @Override
  public Maker at(int port, int stream) {
    return clients.at(port, stream);
  }

  /** The agent sees the response pass. */
  @Override
  public void answered(int port) {}

  @Override
  public boolean leave(String host, int port, Runnable end) {
    return false;
  }

  @Override
  public boolean take(int port) {
    return false;
  }

  @Override
  public boolean pass(int port, Request request, Duration time) {
    return false;
  }
}
