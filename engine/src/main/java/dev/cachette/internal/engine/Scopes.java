// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.calls.Call;
import dev.cachette.http.Request;
import dev.cachette.internal.calls.Log;
import dev.cachette.internal.calls.Tried;
import dev.cachette.internal.cassette.LoadedCassette;
import dev.cachette.internal.explain.Explanation;
import dev.cachette.internal.limit.TimeLimit;
import dev.cachette.internal.model.DraftStub;
import dev.cachette.internal.model.Place;
import dev.cachette.internal.model.StubSpec;
import dev.cachette.internal.openapi.Described;
import dev.cachette.match.Received;
import dev.cachette.result.StubStatus;
import java.time.Instant;
import java.util.ArrayDeque;
import java.util.Collection;
import java.util.Collections;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * The open scopes, innermost first, and all state that changes while calls arrive.
 *
 * <p>A stub belongs to the scope that was innermost when it was declared. A call belongs to the
 * scope that is innermost when it arrives. The lock of this object guards all state; no user code
 * is called under it.
 */
public final class Scopes {

  private final EndedStubs endedStubs = new EndedStubs();
  private final EndedTests endedTests = new EndedTests();
  private final ScopeSettings settings;
  private final Deque<StubScope> scopes = new ArrayDeque<>();
  private final UnusedLater later = new UnusedLater();
  private final ConnectionRules connections = new ConnectionRules(this);
  private final ServedServices services = new ServedServices(this);
  private final CallProgress progress;

  /** A copy for readers without the lock. */
  private volatile List<StubScope> snapshot = List.of();

  private volatile List<Runnable> listeners = List.of();
  private long arrived;

  /** True once there has been a stub that saves bodies to a file. */
  private volatile boolean keepingBodies;

  /** True once there has been an active cassette. */
  private volatile boolean playing;

  /** True once there has been an API description. */
  private volatile boolean describing;

  /** Captures all calls; null if nothing does. */
  private volatile @Nullable Capturing capturing;

  /** Opens the outermost scope, which is empty. */
  public Scopes(ScopeSettings settings) {
    this(settings, TestId.NONE);
  }

  /** Opens the outermost scope, for a test or a class of tests. */
  public Scopes(ScopeSettings settings, TestId test) {
    this.settings = settings;
    this.progress = new CallProgress(this, settings);
    push(new StubScope(settings, place -> true, test));
  }

  /** Returns the rules for connections. */
  public ConnectionRules connections() {
    return connections;
  }

  /** Applies a function to all scopes, innermost first. */
  synchronized <T> T ask(Function<List<StubScope>, T> question) {
    return question.apply(List.copyOf(scopes));
  }

  /** Returns the time by the clock of the session. */
  public Instant now() {
    return settings.clock().instant();
  }

  private void noteEarly(StubRule rule) {
    if (rule.hasEarlyFault()) {
      connections.noteEarlyFault();
    }
  }

  /**
   * Opens an inner scope. Stubs of the outer ones start again with their first answer.
   *
   * @param own whether unused stubs declared at a place are reported at its end; others are
   *     reported at the end of all scopes, unless a stub of the same place was used in another one
   */
  public StubScope enter(Predicate<Place> own) {
    return enter(own, TestId.NONE);
  }

  /** As {@link #enter(Predicate)}, for a test. */
  public synchronized StubScope enter(Predicate<Place> own, TestId test) {
    scopes.forEach(StubScope::startAgain);
    push(new StubScope(settings, own, test));
    return scopes.element();
  }

  /**
   * Ends a scope and those inside it: their stubs and calls are removed. Has no effect if it has
   * ended.
   *
   * @return the report, outer scopes first
   */
  public synchronized ScopeReport leave(StubScope scope) {
    ScopeReport report = ScopeReport.empty();
    while (scopes.contains(scope)) {
      report = ended().and(report);
    }
    return report;
  }

  /** Ends all scopes, and opens the outermost again. */
  public synchronized ScopeReport leaveAll() {
    ScopeReport report = leave(scopes.getLast()).andUnused(later.drain());
    push(new StubScope(settings, place -> true, TestId.NONE));
    return report;
  }

  /** Ends the innermost scope and opens it again. */
  public synchronized ScopeReport renew() {
    StubScope old = scopes.element();
    ScopeReport report = ended();
    enter(old.own(), old.test());
    return report;
  }

  private ScopeReport ended() {
    StubScope ended = pop();
    ended.rules().forEach(endedStubs::add);
    endedTests.add(ended.test(), scopes.peek());
    List<Call> calls = ended.log().entries().calls();
    scopes.forEach(outer -> outer.noteWinners(outer.unusedRules(), calls));
    ScopeReport report = ended.report(later, calls);
    settings.onlooker().ended(() -> ended.end(report, now(), rules()));
    return report;
  }

  /** Marks the test of the innermost scope as failed, for a reason. */
  public synchronized void markFailed(String why) {
    scopes.element().markFailed(why);
  }

  /** Returns the innermost scope, which new calls and stubs belong to. */
  public synchronized StubScope innermost() {
    return scopes.element();
  }

  /** Registers a stub without an answer. */
  public synchronized void begin(DraftStub draft) {
    scopes.element().begin(draft);
  }

  /** Activates a stub, in the scope in which it was declared. */
  public synchronized void finish(DraftStub draft, StubRule rule) {
    scopes.stream()
        .filter(scope -> scope.holds(draft))
        .findFirst()
        .orElseThrow(
            () ->
                new IllegalStateException(
                    "The stub "
                        + draft.reference()
                        + " was declared in a scope that has ended. Fix: declare it again in this"
                        + " scope."))
        .finish(draft, rule);
    noteEarly(rule);
    keepingBodies |= rule.spec().bodyFile().isPresent();
  }

  /**
   * Replaces stubs atomically: a request is answered by the old ones or by the new ones.
   *
   * @param scope the scope of both; if it has ended, the innermost
   * @param old the active stubs; none if there are none yet
   * @param fresh the new stubs
   */
  public synchronized void replace(
      StubScope scope, Collection<StubRule> old, List<StubRule> fresh) {
    StubScope there = scopes.contains(scope) ? scope : scopes.element();
    there.replace(Set.copyOf(old), fresh);
    fresh.forEach(this::noteEarly);
    keepingBodies |= fresh.stream().anyMatch(rule -> rule.spec().bodyFile().isPresent());
  }

  /** Returns what has become of the active stubs, those of the innermost scope first. */
  public synchronized List<StubStatus> statuses() {
    return scopes.stream().flatMap(scope -> scope.statuses(now())).toList();
  }

  /** Returns the active stubs, those of the innermost scope first, in order of declaration. */
  public synchronized List<StubRule> rules() {
    return scopes.stream().flatMap(scope -> scope.rules().stream()).toList();
  }

  /**
   * Returns the unreachable ones of these stubs, in order, each with the stub of the same scope
   * that always answers instead.
   */
  public synchronized Map<StubRule, StubRule> winnersOver(List<StubRule> wanted) {
    Map<StubRule, StubRule> winners = new LinkedHashMap<>();
    scopes.forEach(scope -> winners.putAll(scope.winnersOver(wanted)));
    return winners;
  }

  /** Adds a cassette to the innermost scope. */
  public synchronized void put(LoadedCassette cassette) {
    scopes.element().put(cassette);
    cassette.signedBy(services()::sign);
    playing = true;
    if (cassette.hasEarlyFaults()) {
      connections.noteEarlyFault();
    }
  }

  /** Replaces a cassette, if it is still active. */
  public synchronized void replace(LoadedCassette old, LoadedCassette fresh) {
    scopes.forEach(scope -> Collections.replaceAll(scope.cassettes(), old, fresh));
    if (fresh.hasEarlyFaults()) {
      connections.noteEarlyFault();
    }
  }

  /** Returns all active cassettes, those of the innermost scope first. */
  public List<LoadedCassette> cassettes() {
    return playing
        ? ask(all -> all.stream().flatMap(scope -> scope.cassettes().stream()).toList())
        : List.of();
  }

  /** Returns the active cassettes for a request. */
  List<LoadedCassette> cassettesFor(Request request) {
    OptionalInt port = OptionalInt.of(request.uri().port());
    return cassettes().stream().filter(it -> it.isFor(request.uri().host(), port)).toList();
  }

  /** Returns true if a cassette has an exchange for a request. */
  boolean isRecorded(Request request) {
    return cassettesFor(request).stream().anyMatch(it -> it.answers(request));
  }

  /** Captures all calls from now on that no stub answers. */
  public void capture(Capturing by) {
    capturing = by;
  }

  /** Returns what captures all calls. */
  Optional<Capturing> capturing() {
    return Optional.ofNullable(capturing);
  }

  /** Checks calls against an API description, in the innermost scope. */
  public synchronized void describe(Described service) {
    scopes.element().describe(service);
    describing = true;
  }

  /** Returns the API description for a request: the innermost, last declared one. */
  Optional<Described> describing(Request request) {
    return describing
        ? described().stream().filter(service -> service.isFor(request)).findFirst()
        : Optional.empty();
  }

  /** Returns true if there is an API description for this host and port. */
  boolean isDescribed(String host, int port) {
    return describing && described().stream().anyMatch(service -> service.isAt(host, port));
  }

  /** Returns the API descriptions in force, those of the innermost scope first. */
  public synchronized List<Described> described() {
    return scopes.stream().flatMap(scope -> scope.described().stream()).toList();
  }

  /** Returns the services that other modules stand in for. */
  public ServedServices services() {
    return services;
  }

  /** Lets traffic through, in the innermost scope. */
  public synchronized void letThrough(LetThrough what) {
    scopes.element().letThrough(what);
    connections.noteLetThrough();
  }

  /** Returns the rule that lets a request without a stub through. */
  Optional<LetThrough> letsThrough(Received received) {
    if (!connections.isLettingThrough()) {
      return Optional.empty();
    }
    synchronized (this) {
      return scopes.stream()
          .flatMap(scope -> List.copyOf(scope.through()).stream())
          .filter(what -> what.isFor(received))
          .findFirst();
    }
  }

  /** Changes what was declared of an active stub. */
  public synchronized void change(StubRule rule, UnaryOperator<StubSpec> change) {
    rule.change(change);
    scopes.forEach(StubScope::sortEarly);
    noteEarly(rule);
  }

  /** Activates a stub only after a call of another one. */
  public synchronized void activateAfter(StubRule rule, StubRule other) {
    rule.activeAfter(other);
  }

  /** Returns the calls of the innermost scope. */
  public synchronized Log.Entries<Call> calls() {
    return scopes.element().log().entries();
  }

  /** Registers a listener that runs after each logged or delivered call, with no lock held. */
  public synchronized void onChange(Runnable listener) {
    listeners = Stream.concat(listeners.stream(), Stream.of(listener)).toList();
  }

  /** Returns true if the scope in which a request arrived has ended. */
  synchronized boolean isOver(Arrival arrival) {
    return !scopes.contains(arrival.scope());
  }

  /** Returns notes for a failed test of the innermost scope. */
  public synchronized List<String> notes() {
    return scopes.stream().flatMap(scope -> scope.notes().stream()).toList();
  }

  /** Adds a note for a failed test. */
  synchronized void note(Arrival arrival, String text) {
    arrival.scope().note(text);
  }

  /** Records an attempt that met a fault before there was a request. */
  void noteTried(String host, OptionalInt port, String outcome) {
    synchronized (this) {
      scopes.element().log().addTried(new Tried(host, port, outcome, now()));
    }
    changed();
  }

  /** Records a connection to the real destination; returns what to do when it is made. */
  Runnable noteLetThrough(String host, int port, String yet) {
    Tried begun = Tried.letThrough(host, port, yet, now());
    CallLog log;
    synchronized (this) {
      log = scopes.element().log();
      log.addTried(begun);
    }
    changed();
    return () -> {
      synchronized (this) {
        log.replaceTried(begun, begun.connected());
      }
      changed();
    };
  }

  /** Records that a client closed a connection to a host and port without a request. */
  synchronized void noteSilent(String destination) {
    scopes.element().log().addSilent(destination);
  }

  /** Records unexpected input that is not a call; returns true if it is the first of its kind. */
  public synchronized boolean noteUnexpected(String summary, String explanation) {
    return scopes.element().noteUnexpected(summary, explanation, Optional.empty());
  }

  /**
   * Registers a request that has arrived. A late one belongs to the scope around its test, if that
   * is still open, and else to none.
   */
  synchronized Arrival arrive(ConnectionInfo carrier) {
    boolean late = settings.refuseLate() && isLate(carrier.maker());
    Optional<StubScope> scope =
        late
            ? endedTests.scopeAround(carrier.maker().test()).filter(scopes::contains)
            : Optional.of(scopes.element());
    return new Arrival(
        ++arrived,
        scope.orElseGet(() -> new StubScope(settings, place -> true, TestId.NONE)),
        carrier,
        late,
        scope.isEmpty(),
        now(),
        settings.nanos().getAsLong());
  }

  private boolean isLate(Maker maker) {
    long test = maker.test().number();
    return maker.evidence().isCertain()
        && test != 0
        && scopes.stream().noneMatch(scope -> scope.test().number() == test);
  }

  TimeLimit timeLimit() {
    return new TimeLimit(settings.conditionTimeout(), settings.nanos());
  }

  synchronized boolean allowsCrossOrigin() {
    return settings.cors() || scopes.stream().anyMatch(StubScope::allowsCrossOrigin);
  }

  long maxRequestBody() {
    return settings.maxRequestBody();
  }

  boolean takesPlainForSecure() {
    return settings.treatHttpAsHttps();
  }

  boolean keepsBodies() {
    return keepingBodies;
  }

  /** Returns what notes the progress of calls in the log. */
  CallProgress progress() {
    return progress;
  }

  /** Records an unexpected call; returns true if it is the first of its kind in its scope. */
  synchronized boolean noteUnexpected(
      Arrival arrival, String summary, String explanation, Optional<Received> call) {
    return arrival.scope().noteUnexpected(summary, explanation, call);
  }

  synchronized void noteFailure(Arrival arrival, Throwable failure) {
    arrival.scope().noteFailure(failure);
  }

  /** Returns the last stubs of scopes that have ended. */
  List<Explanation.Stub> endedStubs() {
    return endedStubs.all();
  }

  private void push(StubScope scope) {
    scopes.push(scope);
    snapshot = List.copyOf(scopes);
    settings.onlooker().begun(scope.test());
  }

  private StubScope pop() {
    StubScope popped = scopes.pop();
    snapshot = List.copyOf(scopes);
    return popped;
  }

  /** Returns the open scopes, innermost first; needs no lock. */
  List<StubScope> open() {
    return snapshot;
  }

  /** Returns the stubs of a scope that may match a request, in order of precedence. */
  synchronized List<StubRule> candidates(StubScope scope, Received received) {
    return scope.candidates(received);
  }

  /** Uses the next answer of a stub, if it has one. */
  synchronized Optional<Selected> take(StubRule rule) {
    TimeLimit.requireWanted();
    return rule.take(this::now)
        .map(
            answer ->
                new Selected(
                    rule,
                    answer,
                    rule.turns().count(),
                    scopes.element().templateState(),
                    List.of()));
  }

  void changed() {
    listeners.forEach(Runnable::run);
  }
}
