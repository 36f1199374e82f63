// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.answer.Fault;
import dev.cachette.cassette.Exchange;
import dev.cachette.http.Request;
import dev.cachette.internal.cassette.LoadedCassette;
import dev.cachette.match.MatchInternals;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Stream;

/**
 * Rules for connections before there is a request: whether they are let through, and which fault
 * they get. A view of {@link Scopes}, guarded by its lock.
 */
public final class ConnectionRules {

  private final Scopes scopes;

  /** True once there has been a stub with a fault before the request. */
  private volatile boolean early;

  /** True once something has been let through. */
  private volatile boolean lettingThrough;

  /** The origins whose connections over HTTP/1.1 carry one call each. */
  private volatile Set<String> unkept = Set.of();

  ConnectionRules(Scopes scopes) {
    this.scopes = scopes;
  }

  /**
   * From now on, connections over HTTP/1.1 to these origins, and no others, end with their
   * response: a client that keeps none must make a new one for its next call.
   */
  public void keepNone(Set<String> origins) {
    unkept = Set.copyOf(origins);
  }

  boolean keepsNone(Request request) {
    Set<String> origins = unkept;
    return !origins.isEmpty() && origins.contains(request.uri().origin());
  }

  void noteEarlyFault() {
    early = true;
  }

  void noteLetThrough() {
    lettingThrough = true;
  }

  boolean isLettingThrough() {
    return lettingThrough;
  }

  /**
   * Returns true if connections to a host are let through, unless a stub is for it and must see its
   * calls.
   *
   * @param port the port, or none if it is not known yet
   */
  public boolean letsThrough(String host, OptionalInt port) {
    return lettingThrough
        && scopes.ask(
            all ->
                all.stream()
                        .flatMap(scope -> scope.through().stream())
                        .anyMatch(what -> what.isFor(host, port))
                    && rules(all)
                        .noneMatch(rule -> MatchInternals.isFor(rule.pattern(), host, port)));
  }

  /**
   * Notes a connection to the real destination, so that the list of calls is complete.
   *
   * @param yet what is true until it is connected; empty if that will not be known
   * @return what to do when it is connected
   */
  public Runnable noteConnectionLetThrough(String host, int port, String yet) {
    return scopes.noteLetThrough(host, port, yet);
  }

  /**
   * Returns the fault that the next look-up, connection or handshake for a host gets, if it is the
   * turn of such an answer, and moves on past it.
   *
   * @param port the port, or none if it is not known yet
   */
  public Optional<Fault> meet(Fault.Stage stage, String host, OptionalInt port) {
    if (!early) {
      return Optional.empty();
    }
    Optional<Fault> stubbed =
        scopes.ask(
            all -> {
              Instant now = scopes.now();
              return next(all, now, rule -> MatchInternals.mayReach(rule.pattern(), host, port))
                  .filter(rule -> rule.earlyFault(now).orElseThrow().kind().stage() == stage)
                  .flatMap(rule -> rule.take(() -> now))
                  .map(Fault.class::cast);
            });
    Optional<Fault> met =
        stubbed.or(() -> RecordedFaults.meet(scopes.cassettes(), stage, host, port));
    met.ifPresent(fault -> scopes.noteTried(host, port, fault.toString()));
    return met;
  }

  /** Tries to connect to the real destination. */
  @FunctionalInterface
  public interface Probe {

    /** Returns the failure; empty if there is none. */
    Optional<Exchange> tryTo(Fault.Stage stage, String host, OptionalInt port);
  }

  /**
   * Returns the fault for a connection to a host whose calls are being recorded and for which there
   * is no stub: the real one. It is recorded, too.
   *
   * @param probe tries the real network
   */
  public Optional<Fault> record(Fault.Stage stage, String host, OptionalInt port, Probe probe) {
    Optional<LoadedCassette> recording =
        scopes.cassettes().stream()
            .filter(it -> it.mustAsk(host) && it.isFor(host, port))
            .findFirst()
            .filter(it -> !isStubbed(host, port));
    return recording.flatMap(
        cassette ->
            probe
                .tryTo(stage, host, port)
                .map(
                    failed -> {
                      cassette.keep(failed);
                      return RecordedFaults.early(failed.fault().orElseThrow());
                    }));
  }

  private boolean isStubbed(String host, OptionalInt port) {
    return scopes.ask(
        all -> rules(all).anyMatch(rule -> MatchInternals.isFor(rule.pattern(), host, port)));
  }

  /** Returns true if the next call to a host and port gets a fault before there is a request. */
  public boolean meetsEarly(String host, int port) {
    return early
        && scopes.ask(
            all ->
                next(
                        all,
                        scopes.now(),
                        rule -> MatchInternals.mayReach(rule.pattern(), host, OptionalInt.of(port)))
                    .isPresent());
  }

  /** Returns true if a call to a host and port may get a fault before there is a request. */
  public boolean mayMeetEarly(String host, int port) {
    OptionalInt known = OptionalInt.of(port);
    return early
        && scopes.ask(
            all ->
                all.stream()
                    .flatMap(scope -> scope.early().stream())
                    .anyMatch(rule -> MatchInternals.mayReach(rule.pattern(), host, known)));
  }

  /** Returns true if any stub has such a fault. */
  public boolean haveEarlyFaults() {
    return early;
  }

  /**
   * Returns true if an active stub is for this host, by name or star, and this port; or a service.
   */
  public boolean expectHttp(String host, int port) {
    return isStubbed(host, OptionalInt.of(port)) || !scopes.services().at(host, port).isEmpty();
  }

  /**
   * Returns true if an active stub, cassette, API description or service names this host and port.
   */
  public boolean nameDestination(String host, int port) {
    return scopes.isDescribed(host, port)
        || !scopes.services().at(host, port).isEmpty()
        || scopes.ask(
            all -> rules(all).anyMatch(rule -> MatchInternals.names(rule.pattern(), host, port)))
        || scopes.cassettes().stream().anyMatch(it -> it.names(host, port));
  }

  boolean isEarlyNext(StubRule rule) {
    return early && scopes.ask(all -> rule.earlyFault(scopes.now()).isPresent());
  }

  private static Stream<StubRule> rules(List<StubScope> all) {
    return all.stream().flatMap(scope -> scope.rules().stream());
  }

  private static Optional<StubRule> next(
      List<StubScope> all, Instant now, Predicate<StubRule> wanted) {
    return all.stream()
        .flatMap(scope -> scope.early().stream())
        .filter(wanted)
        .filter(rule -> rule.earlyFault(now).isPresent())
        .findFirst();
  }
}
