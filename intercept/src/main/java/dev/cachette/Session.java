// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.answer.Answer;
import dev.cachette.answer.AnswerInternals;
import dev.cachette.answer.Fault;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.Exchange;
import dev.cachette.http.Request;
import dev.cachette.http.Uri;
import dev.cachette.internal.agent.Attribution;
import dev.cachette.internal.agent.Interception;
import dev.cachette.internal.agent.NativeStacks;
import dev.cachette.internal.answer.Delivery;
import dev.cachette.internal.cassette.LoadedCassette;
import dev.cachette.internal.disk.CassetteName;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.model.Place;
import dev.cachette.internal.model.StubSpec;
import dev.cachette.internal.openapi.Described;
import dev.cachette.internal.openapi.Description;
import dev.cachette.internal.real.RealCalls;
import dev.cachette.internal.resource.DescriptionSource;
import dev.cachette.internal.resource.Reach;
import dev.cachette.internal.resource.Resources;
import dev.cachette.internal.resource.StubSources;
import dev.cachette.internal.stub.DraftStub;
import dev.cachette.internal.stub.HostServices;
import dev.cachette.internal.stub.RealResponse;
import dev.cachette.internal.stub.RealService;
import dev.cachette.internal.stub.RealServiceFailed;
import dev.cachette.internal.stub.Responder;
import dev.cachette.internal.stub.ScopeReport;
import dev.cachette.internal.stub.ScopeSettings;
import dev.cachette.internal.stub.Scopes;
import dev.cachette.internal.stub.StubRule;
import dev.cachette.internal.stub.StubScope;
import dev.cachette.internal.stub.TestId;
import dev.cachette.internal.text.Failed;
import dev.cachette.internal.tls.AuthorityFile;
import dev.cachette.internal.tls.ServerTls;
import dev.cachette.internal.wire.WireServer;
import dev.cachette.match.MatchInternals;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.Consumer;
import java.util.function.Predicate;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;

/** The parts of an open Cachette: the scopes, the server, the hooks. */
final class Session {

  private final Settings settings;
  private final TestClock clock;
  private final boolean ownClock;
  private volatile Runnable resetClock;
  private final Scopes scopes;
  private final Resources resources = new Resources();
  private final Cassettes cassettes;
  private final ServerTls tls;
  private final WireServer server;
  private final RealCalls real;
  private final @Nullable Interception interception;
  private final Optional<Attribution> attribution;
  private final CallNotices notices;
  private final RunObservers observers;
  private Runnable stopFollowingClock = () -> {};
  private final Map<String, Optional<String>> oldProperties = new LinkedHashMap<>();

  /** Binds a port. */
  @FunctionalInterface
  private interface Port {

    InetSocketAddress bind() throws IOException;
  }

  /**
   * Starts a session.
   *
   * @param owner its toString says who intercepts
   * @param name the name of the tests that it is for
   */
  Session(Settings settings, Object owner, String name) {
    this.settings = settings;
    TestId test = Attribution.newTest(name);
    this.clock = TestClock.over(settings.clock());
    this.ownClock = !settings.hasClock();
    resetClock = clock.saved();
    this.tls =
        new ServerTls(
            settings.certificateAuthority().map(AuthorityFile::new),
            settings.requestClientCertificates());
    this.notices = new CallNotices(settings.callListener());
    this.observers = RunObservers.of(settings);
    this.scopes = new Scopes(scopeSettings(), test);
    this.cassettes = new Cassettes(Messages::warn);
    ConnectionPolicy traffic = new ConnectionPolicy(scopes, this::probe, Messages::warn);
    HostServices outside =
        new HostServices(
            settings::mapper, resources, realService(), Messages::warn, LateCalls::add);
    this.server =
        new WireServer(
            new Responder(scopes, outside),
            traffic,
            tls,
            settings.maxRequestBody(),
            !settings.interception(),
            settings.servingThreads());
    this.real = settings.realServices().calledBy(server.engine());
    traffic.serveBy(server);
    try {
      this.interception = settings.interception() ? Interception.begin(owner, traffic, tls) : null;
      this.attribution = Optional.ofNullable(interception).map(Interception::attribution);
      attribution.ifPresent(it -> follow(it, test));
      settings.baseUrlInProperty().forEach(this::setProperty);
    } catch (RuntimeException refused) {
      server.close();
      throw refused;
    }
  }

  private ScopeSettings scopeSettings() {
    return new ScopeSettings(
        clock,
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
    resetClock();
    server.awaitDecisions();
    end(scopes.renew());
  }

  Scopes scopes() {
    return scopes;
  }

  RunObservers observers() {
    return observers;
  }

  /**
   * Opens a scope for a test, which this thread works for.
   *
   * @return ends it, throws its failures, and lets this thread work for the scope around it again
   */
  Runnable enter(Predicate<Place> own, String name) {
    TestId test = Attribution.newTest(name);
    attribution.ifPresent(it -> it.begin(test));
    StubScope entered = scopes.enter(own, test);
    Runnable restoreClock = enterClock();
    makeConnectionsNew();
    return () -> {
      restoreClock.run();
      server.awaitDecisions();
      ScopeReport report = scopes.leave(entered);
      Attribution.end(test);
      attribution.ifPresent(it -> it.begin(scopes.innermost().test()));
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
    if (interception != null
        && fresh.stream()
            .anyMatch(
                it ->
                    MatchInternals.host(it.pattern()).filter(interception::isLocal).isPresent())) {
      // There may be open connections to the application's own port.
      interception.endOldConnections();
    }
    makeConnectionsNew();
  }

  CassetteSettings cassetteSettings() {
    return settings.cassettes();
  }

  /** Activates a cassette. */
  ActiveCassette put(String name, CassetteSettings how) {
    return put(name, CassetteName.in(settings.cassetteFolder(), name), how);
  }

  /** Activates the cassette in a file. */
  ActiveCassette put(String name, Path file, CassetteSettings how) {
    LoadedCassette cassette = cassettes.open(name, file, how);
    scopes.put(cassette);
    makeConnectionsNew();
    return new ActiveCassette(this, cassette, file);
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

  TestClock clock() {
    return clock;
  }

  /** Returns an action that restores the clock at the end of a scope. */
  private Runnable enterClock() {
    if (!ownClock) {
      return () -> {};
    }
    Runnable outer = resetClock;
    Runnable saved = clock.saved();
    resetClock = saved;
    return () -> {
      saved.run();
      resetClock = outer;
    };
  }

  /** Sets the clock as it was at the beginning of the scope. */
  void resetClock() {
    if (ownClock) {
      resetClock.run();
    }
  }

  Outage outage(Cachette net, String origin, List<Answer> answers) {
    String service = Uri.parseOrigin(origin).origin();
    return new Outage(net, service, scopes.innermost(), Caller.place(), answers);
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

  /** Returns an answer with its file read. */
  Answer ready(Answer answer) {
    return AnswerInternals.map(answer, this::read);
  }

  private Answer read(Answer answer) {
    if (!(answer instanceof ResponseAnswer plain)
        || AnswerInternals.delivery(plain).source().isEmpty()) {
      return answer;
    }
    Delivery.Source source = AnswerInternals.delivery(plain).source().get();
    if (AnswerInternals.delivery(plain).streamed()) {
      resources.requireReadable(source);
      return plain;
    }
    return AnswerInternals.read(plain, resources.read(source));
  }

  StubSources stubSources(String... names) {
    return StubSources.named(List.of(names), settings.stubFolder(), readingFrom(Reach.anywhere()));
  }

  StubSources stubSource(String text) {
    return StubSources.of(
        text, readingFrom(settings.declaredWithin().map(Reach::within).orElseGet(Reach::anywhere)));
  }

  private StubSources.Reading readingFrom(Reach reach) {
    return new StubSources.Reading(
        this::ready,
        cassette -> CassetteName.in(settings.cassetteFolder(), cassette),
        CassetteFiles::recorded,
        reach);
  }

  DescribedService describe(String origin, String name) {
    if (name == null) {
      throw Refusals.argument(
          "describedBy(origin, name) needs a name, such as \"berths.openapi.yaml\".");
    }
    Uri at = Uri.parseOrigin(origin);
    Supplier<Description> reading =
        () -> Description.read(DescriptionSource.named(name, settings.stubFolder()));
    Described service = new Described(at.origin(), reading.get());
    scopes.describe(service);
    if (interception != null && interception.isLocal(at.host())) {
      // There may be open connections to the application's own port.
      interception.endOldConnections();
    }
    return new DescribedService(service, reading);
  }

  String baseUrl() {
    return url(this::listener);
  }

  /** Returns the port at the address of the settings, serving as their origin if it is set. */
  private InetSocketAddress listener() throws IOException {
    if (settings.servingAs().isEmpty()) {
      return server.sharedListener(settings.listenAddress());
    }
    Uri origin = Uri.parseOrigin(settings.servingAs().get());
    return server.listenerServingAs(
        origin.scheme(), origin.host(), origin.port(), settings.listenAddress());
  }

  String baseUrlFor(String origin) {
    Uri at = Uri.parseOrigin(origin);
    return url(() -> server.listenerServingAs(at.scheme(), at.host(), at.port()));
  }

  ForwardProxy proxy() {
    return new ForwardProxy(bound(this::listener), tls.authorityPem());
  }

  /** Ends what belongs to a scope, and throws its failures. */
  void end(ScopeReport report) {
    // A local port that no stub names any more is the application's own again.
    if (interception != null) {
      server.end(
          (host, port) ->
              interception.isLocal(host) && !scopes.connections().nameDestination(host, port));
      interception.endWaiting();
    }
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

  /** Restores the JVM, and throws the remaining failures. */
  void close() {
    oldProperties.forEach(Session::restoreProperty);
    attribution.ifPresent(it -> it.begin(TestId.NONE));
    Attribution.end(scopes.innermost().test());
    stopFollowingClock.run();
    try (server) {
      if (interception != null) {
        interception.close();
      }
    } catch (WireServer.Abandoned running) {
      scopes.innermost().noteFailure(Failed.of(running.getMessage()));
    }
    notices.close();
    raise(scopes.leaveAll());
  }

  /** Returns access to real services, except to Cachette itself. */
  private RealService realService() {
    return new RealService() {
      @Override
      public Exchange call(Request request, String protocol) throws RealServiceFailed {
        requireElsewhere(request);
        return real.call(request, protocol);
      }

      @Override
      public RealResponse begin(Request request, String protocol, Consumer<Exchange> ended)
          throws RealServiceFailed {
        requireElsewhere(request);
        return real.begin(request, protocol, ended);
      }

      @Override
      public boolean explainsFailures() {
        return !settings.interception();
      }

      private void requireElsewhere(Request request) throws RealServiceFailed {
        if (isOurself(request)) {
          throw new RealServiceFailed(
              Exchange.failed(Instant.now(), Duration.ZERO, request, Fault.Kind.CONNECTION_RESET),
              new IOException("its destination is this address, which would be an endless loop"));
        }
      }

      @Override
      public boolean isOurself(Request request) {
        return real.hasCalled(request)
            || server.listensAt(request.uri().host(), request.uri().port());
      }
    };
  }

  private Optional<Exchange> probe(Fault.Stage stage, String host, OptionalInt port) {
    return real.probe(stage, host, port);
  }

  private void setProperty(String property, String origin) {
    oldProperties.put(property, Optional.ofNullable(System.getProperty(property)));
    System.setProperty(property, baseUrlFor(origin));
  }

  private static void restoreProperty(String property, Optional<String> old) {
    old.ifPresentOrElse(
        value -> System.setProperty(property, value), () -> System.clearProperty(property));
  }

  private static String url(Port port) {
    InetSocketAddress bound = bound(port);
    InetAddress address = bound.getAddress();
    String host = address.isAnyLocalAddress() ? "127.0.0.1" : address.getHostAddress();
    return "http://" + (host.indexOf(':') < 0 ? host : "[" + host + "]") + ":" + bound.getPort();
  }

  private static InetSocketAddress bound(Port port) {
    try {
      return port.bind();
    } catch (IOException noPort) {
      throw new IllegalStateException(noPort.getMessage(), noPort);
    }
  }

  private void follow(Attribution callers, TestId test) {
    server.knowClientsBy(HookedClients.of(interception));
    server.serveKept();
    callers.begin(test);
    NativeStacks.warn(Messages::warn);
    stopFollowingClock = clock.onMove(server::clockMoved);
  }
}
