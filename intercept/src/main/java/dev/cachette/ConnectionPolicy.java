// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.answer.Fault;
import dev.cachette.internal.agent.ConnectingClient;
import dev.cachette.internal.agent.Destinations;
import dev.cachette.internal.engine.ConnectionRules;
import dev.cachette.internal.engine.Scopes;
import dev.cachette.internal.wire.HandshakePolicy;
import dev.cachette.internal.wire.WireServer;
import java.io.IOException;
import java.net.ConnectException;
import java.net.InetSocketAddress;
import java.time.Instant;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.Consumer;

/** Decides about connections before there is a request, for the hooks and the server. */
final class ConnectionPolicy implements Destinations, HandshakePolicy {

  private final Scopes scopes;
  private final ConnectionRules connections;
  private final Consumer<String> warning;
  private final ConnectionRules.Probe probe;
  private WireServer server;

  ConnectionPolicy(Scopes scopes, ConnectionRules.Probe probe, Consumer<String> warning) {
    this.probe = probe;
    this.scopes = scopes;
    this.connections = scopes.connections();
    this.warning = warning;
  }

  /** Must be called before the first connection. */
  void serveBy(WireServer wire) {
    server = wire;
  }

  @Override
  public boolean wantsLocal(String host, int port) {
    return connections.nameDestination(host, port);
  }

  @Override
  public boolean letsThrough(String host, OptionalInt port) {
    return connections.letsThrough(host, port);
  }

  @Override
  public Runnable connectsThrough(String host, int port, String yet) {
    return connections.noteConnectionLetThrough(host, port, yet);
  }

  @Override
  public Optional<Fault> meet(Fault.Stage stage, String host, OptionalInt port) {
    return connections
        .meet(stage, host, port)
        .or(() -> connections.record(stage, host, port, probe));
  }

  @Override
  public Optional<Fault> atHandshake(String host, int port) {
    return connections.meet(Fault.Stage.HANDSHAKE, host, OptionalInt.of(port));
  }

  @Override
  public boolean expectsHttp(String host, int port) {
    return connections.expectHttp(host, port);
  }

  @Override
  public InetSocketAddress listenerFor(String host, int port, ConnectingClient client)
      throws IOException {
    Optional<String> protocol = OtherProtocols.at(port);
    if (protocol.isPresent() && !connections.expectHttp(host, port)) {
      throw refuse(
          "a connection to " + host + ":" + port,
          OtherProtocols.explanation(host, port, protocol.get()));
    }
    // This client may begin a call on an HTTP/2 connection that is about to end; the header of
    // HTTP/1.1 that ends a connection is exact.
    boolean exactly = connections.mayMeetEarly(host, port) && client.isOfJdk();
    return server.listenerFor(host, port, exactly, client.isBlocking());
  }

  @Override
  public Instant now() {
    return scopes.now();
  }

  @Override
  public ConnectException refuseHttp3(String host, int port) {
    return refuse(
        "a connection over HTTP/3 to " + host + ":" + port,
        String.format(
            "A connection over HTTP/3 to %s:%d was refused: Cachette does not intercept UDP.%n%n"
                + "Fix: let the client use HTTP/2 or HTTP/1.1 in this test.%n",
            host, port));
  }

  private ConnectException refuse(String summary, String explanation) {
    if (scopes.noteUnexpected(summary, explanation)) {
      warning.accept(explanation);
    }
    return new ConnectException(explanation.strip());
  }
}
