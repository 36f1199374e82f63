// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.http.Request;
import dev.cachette.internal.agent.Attribution;
import dev.cachette.internal.agent.ClientTimers;
import dev.cachette.internal.agent.Interception;
import dev.cachette.internal.agent.UnservedConnections;
import dev.cachette.internal.engine.Maker;
import dev.cachette.internal.wire.ClientHooks;
import java.time.Duration;
import java.util.function.Predicate;

/** Tells the server what the hooks know, and the other way round. */
record HookedClients(
    Attribution attribution,
    ClientTimers timers,
    UnservedConnections unserved,
    Predicate<String> isLocal)
    implements ClientHooks {

  static HookedClients of(Interception interception) {
    return new HookedClients(
        interception.attribution(),
        interception.timers(),
        interception.unservedConnections(),
        interception::isLocal);
  }

  @Override
  public Maker at(int port) {
    return attribution.at(port);
  }

  @Override
  public Maker at(int port, int stream) {
    return attribution.at(port, stream);
  }

  @Override
  public void answered(int port) {
    attribution.answered(port);
  }

  /** A local port may be the application's own again. */
  @Override
  public boolean leave(String host, int port, Runnable end) {
    return !isLocal.test(host) && unserved.leave(port, end);
  }

  @Override
  public boolean take(int port) {
    return unserved.take(port);
  }

  @Override
  public boolean pass(int port, Request request, Duration time) {
    return timers.pass(port, request.method(), request.uri().toJavaUri(), time);
  }
}
