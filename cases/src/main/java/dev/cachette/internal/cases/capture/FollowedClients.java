// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases.capture;

import dev.cachette.internal.engine.Maker;
import dev.cachette.internal.tunnel.TunnelledClients;
import dev.cachette.internal.wire.ClientHooks;

/**
 * Knows the clients of an application in another JVM, whose agent sees itself that a response
 * passes.
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

  @Override
  public boolean prefersHttp1() {
    return true;
  }
}
