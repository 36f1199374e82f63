// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.internal.agent.Attribution;
import dev.cachette.internal.agent.Interception;
import dev.cachette.internal.agent.NativeStacks;
import dev.cachette.internal.engine.ConnectionRules;
import dev.cachette.internal.engine.TestId;
import dev.cachette.internal.wire.WireServer;
import dev.cachette.match.MatchInternals;
import dev.cachette.match.RequestPattern;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicReference;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/** The hooks in this JVM for one session; none if it intercepts nothing. */
final class SessionHooks {

  /** The one that intercepts in this JVM. */
  private static final AtomicReference<@Nullable Object> OWNER = new AtomicReference<>();

  private final Optional<Interception> interception;
  private final WireServer server;
  private volatile boolean expectsTls;

  private SessionHooks(Optional<Interception> interception, WireServer server) {
    this.interception = interception;
    this.server = server;
  }

  /** Returns none. */
  static SessionHooks none(WireServer server) {
    return new SessionHooks(Optional.empty(), server);
  }

  /**
   * Directs connections to a server.
   *
   * @param owner its toString says who intercepts
   */
  static SessionHooks begin(Object owner, AnsweringServer answering, TestId test) {
    Interception begun = Interception.begin(owner, answering.policy(), answering.tls());
    OWNER.set(owner);
    WireServer server = answering.wire();
    server.knowClientsBy(HookedClients.of(begun));
    server.serveKept();
    begun.attribution().begin(test);
    NativeStacks.warn(Messages::warn);
    return new SessionHooks(Optional.of(begun), server);
  }

  /** Returns the Cachette that intercepts in this JVM; empty if none does. */
  static Optional<Cachette> owner() {
    return Optional.ofNullable(OWNER.get()).map(Cachette.class::cast);
  }

  /** Lets this thread work for a test. */
  void workFor(TestId test) {
    interception.map(Interception::attribution).ifPresent(it -> it.begin(test));
  }

  /** Ends what was made for a test. */
  static void end(TestId test) {
    Attribution.end(test);
  }

  /** Returns an identity for a test. */
  static TestId newTest(String name) {
    return Attribution.newTest(name);
  }

  /** Prepares for connections to the first host that there are stubs for. */
  void expect(RequestPattern pattern) {
    if (interception.isPresent() && !expectsTls && isOverTls(pattern)) {
      expectsTls = true;
      MatchInternals.host(pattern).ifPresent(server::expectTls);
    }
  }

  private static boolean isOverTls(RequestPattern pattern) {
    return MatchInternals.indexKey(pattern)
        .origin()
        .filter(it -> it.startsWith("https:"))
        .isPresent();
  }

  /** Ends connections to this machine if a stub is for it: the application may be there. */
  void answering(Stream<RequestPattern> patterns) {
    interception
        .filter(
            it ->
                patterns.anyMatch(one -> MatchInternals.host(one).filter(it::isLocal).isPresent()))
        .ifPresent(Interception::endOldConnections);
  }

  /** As for a stub of this host. */
  void answering(String host) {
    interception.filter(it -> it.isLocal(host)).ifPresent(Interception::endOldConnections);
  }

  /** Gives local ports that no stub names any more back to the application. */
  void release(ConnectionRules rules) {
    interception.ifPresent(
        it -> {
          server.end((host, port) -> it.isLocal(host) && !rules.nameDestination(host, port));
          it.endWaiting();
        });
  }

  /** The clock of the session was moved. */
  void clockMoved() {
    interception.ifPresent(Interception::clockMoved);
    server.clockMoved();
  }

  /** Takes the hooks out of this JVM. */
  void close() {
    interception.ifPresent(
        it -> {
          OWNER.set(null);
          it.close();
        });
  }
}
