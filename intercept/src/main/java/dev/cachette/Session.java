// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.cassette.CassetteSettings;
import dev.cachette.http.Uri;
import dev.cachette.internal.cassette.LoadedCassette;
import dev.cachette.internal.engine.ScopeReport;
import dev.cachette.internal.engine.ScopeSettings;
import dev.cachette.internal.engine.Scopes;
import dev.cachette.internal.engine.StubRule;
import dev.cachette.internal.engine.StubScope;
import dev.cachette.internal.engine.TestId;
import dev.cachette.internal.model.DraftStub;
import dev.cachette.internal.model.Place;
import dev.cachette.internal.model.StubSpec;
import dev.cachette.internal.text.Failed;
import dev.cachette.internal.wire.WireServer;
import java.nio.file.Path;
import java.util.Collection;
import java.util.List;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;

/** The parts of an open Cachette: the scopes, the server, the hooks. */
final class Session {

  private final Settings settings;
  private final String name;
  private final ScopeClock clock;
  private final Scopes scopes;
  private final NamedFiles files;
  private final Cassettes cassettes = new Cassettes(Messages::warn);
  private final AnsweringServer answering;
  private final WireServer server;
  private final ServedAddresses addresses;
  private final SessionHooks hooks;
  private final CallNotices notices;
  private final RunObservers observers;
  private final Runnable stopFollowingClock;

  /**
   * Starts a session.
   *
   * @param owner its toString says who intercepts
   * @param name the name of the tests that it is for
   */
  Session(Settings settings, Object owner, String name) {
    this.settings = settings;
    this.name = name;
    TestId test = SessionHooks.newTest(name);
    this.clock = new ScopeClock(settings);
    this.notices = new CallNotices(settings.callListener());
    this.observers = RunObservers.of(settings);
    this.scopes = new Scopes(scopeSettings(), test);
    this.files = new NamedFiles(settings);
    this.answering = AnsweringServer.start(settings, scopes, files);
    this.server = answering.wire();
    this.addresses = new ServedAddresses(server, settings);
    try {
      this.hooks =
          settings.interception()
              ? SessionHooks.begin(owner, answering, test)
              : SessionHooks.none(server);
      this.stopFollowingClock = clock().onMove(hooks::clockMoved);
      addresses.setProperties();
    } catch (RuntimeException refused) {
      server.close();
      throw refused;
    }
  }

  private ScopeSettings scopeSettings() {
    return new ScopeSettings(
        clock(),
        settings.seed(),
        settings.maxCalls(),
        settings.maxCallBodies(),
        settings.maxRequestBody(),
        settings.isSet("callListener") ? notices : settings.callListener(),
        observers,
        settings.treatHttpAsHttps(),
        settings.cors(),
        !settings.acceptLateCalls(),
        settings.conditionTimeout(),
        System::nanoTime);
  }

  /** Ends the innermost scope and opens it again. */
  void renew() {
    clock.reset();
    server.awaitDecisions();
    end(scopes.renew());
  }

  /** Returns its name: that of the settings, or the line that opened it. */
  String name() {
    return name;
  }

  Settings settings() {
    return settings;
  }

  Scopes scopes() {
    return scopes;
  }

  RunObservers observers() {
    return observers;
  }

  TestClock clock() {
    return clock.clock();
  }

  NamedFiles files() {
    return files;
  }

  ServedAddresses addresses() {
    return addresses;
  }

  /**
   * Opens a scope for a test, which this thread works for.
   *
   * @return ends it, throws its failures, and lets this thread work for the scope around it again
   */
  Runnable enter(Predicate<Place> own, String name) {
    TestId test = SessionHooks.newTest(name);
    hooks.workFor(test);
    StubScope entered = scopes.enter(own, test);
    Runnable restoreClock = clock.enter();
    makeConnectionsNew();
    return () -> {
      restoreClock.run();
      server.awaitDecisions();
      ScopeReport report = scopes.leave(entered);
      SessionHooks.end(test);
      hooks.workFor(scopes.innermost().test());
      end(report);
    };
  }

  /** Activates a declared stub. */
  void finish(DraftStub draft, StubRule rule) {
    scopes.finish(draft, rule);
    reachable(List.of(rule));
  }

  /** Replaces stubs. */
  void replace(StubScope scope, Collection<StubRule> old, List<StubRule> fresh) {
    scopes.replace(scope, old, fresh);
    reachable(fresh);
  }

  private void reachable(List<StubRule> fresh) {
    if (!fresh.isEmpty()) {
      hooks.expect(fresh.get(0).pattern());
    }
    hooks.answering(fresh.stream().map(StubRule::pattern));
    makeConnectionsNew();
  }

  CassetteSettings cassetteSettings() {
    return settings.cassettes();
  }

  /** Activates the cassette in a file. */
  ActiveCassette put(String name, Path file, CassetteSettings how) {
    LoadedCassette cassette = cassettes.open(name, file, how);
    scopes.put(cassette);
    makeConnectionsNew();
    return new ActiveCassette(this, cassette, file);
  }

  /** Activates a cassette that is read already. */
  void put(LoadedCassette cassette) {
    scopes.put(cassette);
    cassette.namedHosts().forEach(hooks::answering);
    makeConnectionsNew();
  }

  /** Returns its server. */
  AnsweringServer answering() {
    return answering;
  }

  /** Reloads the file of a cassette. */
  LoadedCassette reload(LoadedCassette old, Path file) {
    LoadedCassette fresh = cassettes.open(old.name(), file, old.settings());
    scopes.replace(old, fresh);
    cassettes.retire(old);
    makeConnectionsNew();
    return fresh;
  }

  /** Discards what cassettes have recorded, and reports no misuse on top of the failure. */
  void markFailed(String why) {
    cassettes.open().forEach(LoadedCassette::discard);
    scopes.markFailed(why);
  }

  /** Changes what was declared of an active stub. */
  void change(StubRule rule, UnaryOperator<StubSpec> change) {
    scopes.change(rule, change);
    makeConnectionsNew();
  }

  /** Closes connections if the next call needs a new one, for a fault before the request. */
  void makeConnectionsNew() {
    if (scopes.connections().haveEarlyFaults()) {
      server.hangUp(scopes.connections()::meetsEarly);
    }
  }

  /** Checks calls to a service against its API description. */
  DescribedService describe(String origin, String name) {
    DescribedService service = DescribedService.named(name, origin, files);
    scopes.describe(service.described());
    hooks.answering(Uri.parseOrigin(origin).host());
    return service;
  }

  ForwardProxy proxy() {
    return new ForwardProxy(addresses.any(), answering.tls().authorityPem());
  }

  /** Ends what belongs to a scope, and throws its failures. */
  void end(ScopeReport report) {
    hooks.release(scopes.connections());
    server.endWhatIsOver();
    raise(report);
  }

  private void raise(ScopeReport ended) {
    boolean onUnexpected = settings.unexpectedCalls() == UnexpectedCalls.FAIL;
    boolean onUnused = settings.unusedStubs() == UnusedStubs.FAIL;
    ScopeReport report = cassettes.close(ended, ended.isFailure(onUnexpected, onUnused));
    if (settings.unusedStubs() == UnusedStubs.WARN) {
      report.unusedStubs().ifPresent(Messages::warn);
    }
    report.raise(onUnexpected, onUnused);
  }

  /** Ends it, tells its observers, and throws the failures of both as one. */
  void close(Cachette net) {
    observers.closing(net);
    @Nullable Throwable failure = null;
    try {
      close();
    } catch (RuntimeException | Error failed) {
      failure = failed;
    }
    observers.closed(net, failure);
  }

  /** Restores the JVM, and throws the remaining failures. */
  private void close() {
    addresses.restoreProperties();
    hooks.workFor(TestId.NONE);
    SessionHooks.end(scopes.innermost().test());
    stopFollowingClock.run();
    try (server) {
      hooks.close();
    } catch (WireServer.Abandoned running) {
      scopes.innermost().noteFailure(Failed.of(running.getMessage()));
    }
    notices.close();
    raise(scopes.leaveAll());
  }
}
