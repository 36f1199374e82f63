package dev.cachette;

import dev.cachette.http.Request;
import dev.cachette.internal.agent.Attribution;
import dev.cachette.internal.agent.ClientTimers;
import dev.cachette.internal.stub.Maker;
import dev.cachette.internal.wire.ClientHooks;
import java.time.Duration;

/** Tells the server what the hooks know, and the other way round. */
record HookedClients(Attribution attribution, ClientTimers timers) implements ClientHooks {

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

  @Override
  public boolean pass(int port, Request request, Duration time) {
    return timers.pass(port, request.method(), request.uri().toJavaUri(), time);
  }
}
