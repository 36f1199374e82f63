package dev.cachette.internal.stub;

import dev.cachette.calls.Log;
import dev.cachette.http.Request;
import dev.cachette.internal.cassette.InPlay;
import dev.cachette.internal.explain.Explanation;
import dev.cachette.internal.openapi.Described;
import dev.cachette.match.Received;
import java.time.Instant;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.stream.Stream;

/**
 * The scopes in force, the innermost first, and all that changes while calls arrive.
 *
 * <p>A stub belongs to the scope that was innermost when it was begun. A call belongs to the scope
 * that is innermost when it arrives. All state is guarded by the lock of this object; nothing is
 * called under it that is not ours.
 */
public final class Scopes {

  private final ScopeSettings settings;
  private final Deque<StubScope> scopes = new ArrayDeque<>();
  private final ConnectionRules connections = new ConnectionRules(this);

  /** The same, for those who look at them without the lock. */
  private volatile List<StubScope> snapshot = List.of();

  private volatile List<Runnable> listeners = List.of();
  private long arrived;

  /** Whether there ever was a stub that keeps bodies in a file. */
  private volatile boolean keepingBodies;

  /** Whether there ever was a cassette in play. */
  private volatile boolean playing;

  /** Whether a service ever was described. */
  private volatile boolean describing;

  /** The outermost scope, with nothing in it. */
  public Scopes(ScopeSettings settings) {
    this.settings = settings;
    push(new StubScope(settings));
  }

  /** What they say of connections. */
  public ConnectionRules connections() {
    return connections;
  }

  /** Asks something of all scopes, the innermost first. */
  synchronized <T> T ask(Function<List<StubScope>, T> question) {
    return question.apply(List.copyOf(scopes));
  }

  Instant now() {
    return settings.clock().instant();
  }

  private void noteEarly(StubRule rule) {
    if (rule.hasEarlyTrouble()) {
      connections.noteEarlyTrouble();
    }
  }

  /** Begins an inner scope. Stubs of the outer ones answer from their first answer again. */
  public synchronized StubScope enter() {
    scopes.forEach(StubScope::startAgain);
    push(new StubScope(settings));
    return scopes.element();
  }

  /**
   * Ends a scope and those in it: their stubs and calls are gone. Where it has ended already,
   * nothing happens.
   *
   * @return what is left to be said, of the outer scopes first
   */
  public synchronized ScopeReport leave(StubScope scope) {
    ScopeReport report = ScopeReport.empty();
    while (scopes.contains(scope)) {
      report = pop().report().and(report);
    }
    return report;
  }

  /** Ends all scopes; the outermost begins anew. */
  public synchronized ScopeReport leaveAll() {
    ScopeReport report = leave(scopes.getLast());
    push(new StubScope(settings));
    return report;
  }

  /** Ends the innermost scope and begins it anew. */
  public synchronized ScopeReport renew() {
    ScopeReport report = pop().report();
    enter();
    return report;
  }

  /** The scope that calls and stubs belong to from now on. */
  public synchronized StubScope innermost() {
    return scopes.element();
  }

  /** Notes a stub that is begun. */
  public synchronized void begin(DraftStub draft) {
    scopes.element().begin(draft);
  }

  /** Puts a stub into force, in the scope in which it was begun. */
  public synchronized void finish(DraftStub draft, StubRule rule) {
    scopes.stream()
        .filter(scope -> scope.holds(draft))
        .findFirst()
        .orElseThrow(
            () ->
                new IllegalStateException(
                    "The stub "
                        + draft.reference()
                        + " was begun in a scope that has ended. "
                        + "Mend: declare it again in this one."))
        .finish(draft, rule);
    noteEarly(rule);
    keepingBodies |= rule.bodyFile().isPresent();
  }

  /**
   * Puts stubs in the place of others, at once: a request is answered by the old ones or by the new
   * ones.
   *
   * @param scope the scope of both; if it has ended, the innermost
   * @param old those that are in force; none if there are none yet
   * @param fresh those that come into force
   */
  public synchronized void replace(
      StubScope scope, Collection<StubRule> old, List<StubRule> fresh) {
    StubScope there = scopes.contains(scope) ? scope : scopes.element();
    there.replace(Set.copyOf(old), fresh);
    fresh.forEach(this::noteEarly);
    keepingBodies |= fresh.stream().anyMatch(rule -> rule.bodyFile().isPresent());
  }

  /** The stubs in force, those of the innermost scope first, in the order they were declared. */
  public synchronized List<StubRule> rules() {
    return scopes.stream().flatMap(scope -> scope.rules().stream()).toList();
  }

  /**
   * Those of these stubs that can never answer, in their order, each with the one of the same scope
   * that always answers in its place.
   */
  public synchronized Map<StubRule, StubRule> winnersOver(List<StubRule> wanted) {
    Map<StubRule, StubRule> winners = new LinkedHashMap<>();
    scopes.forEach(scope -> winners.putAll(scope.winnersOver(wanted)));
    return winners;
  }

  /** Puts a cassette in, in the innermost scope. */
  public synchronized void put(InPlay cassette) {
    scopes.element().put(cassette);
    playing = true;
    if (cassette.hasEarlyTroubles()) {
      connections.noteEarlyTrouble();
    }
  }

  /** Puts a cassette in the place of another one, if that is still in play. */
  public synchronized void replace(InPlay old, InPlay fresh) {
    scopes.forEach(scope -> Collections.replaceAll(scope.cassettes(), old, fresh));
    if (fresh.hasEarlyTroubles()) {
      connections.noteEarlyTrouble();
    }
  }

  /** All cassettes in play, those of the innermost scope first. */
  public List<InPlay> cassettes() {
    return playing
        ? ask(all -> all.stream().flatMap(scope -> scope.cassettes().stream()).toList())
        : List.of();
  }

  /** The cassettes in play that are for a request. */
  List<InPlay> cassettesFor(Request request) {
    OptionalInt port = OptionalInt.of(request.uri().port());
    return cassettes().stream().filter(it -> it.isFor(request.uri().host(), port)).toList();
  }

  /** From now on, holds calls against a description, in the innermost scope. */
  public synchronized void describe(Described service) {
    scopes.element().describe(service);
    describing = true;
  }

  /** What describes the service that a request is for: in the inner scope, and said last. */
  Optional<Described> describing(Request request) {
    return describing
        ? described().stream().filter(service -> service.isFor(request)).findFirst()
        : Optional.empty();
  }

  /** Whether a service at this host and port is described. */
  boolean isDescribed(String host, int port) {
    return describing && described().stream().anyMatch(service -> service.isAt(host, port));
  }

  private synchronized List<Described> described() {
    return scopes.stream().flatMap(scope -> scope.described().stream()).toList();
  }

  /** From now on, lets something through, in the innermost scope. */
  public synchronized void letThrough(LetThrough what) {
    scopes.element().letThrough(what);
    connections.noteLetThrough();
  }

  /** What lets a request through that no stub answers. */
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

  /** Changes a stub that is in force already. */
  public synchronized void change(StubRule rule, Consumer<StubRule> change) {
    change.accept(rule);
    scopes.forEach(StubScope::sortEarly);
    noteEarly(rule);
  }

  /** The calls of the innermost scope. */
  public synchronized Log.Entries calls() {
    return scopes.element().log().entries();
  }

  /** From now on, runs this whenever a call was logged or delivered; with no lock held. */
  public synchronized void onChange(Runnable listener) {
    listeners = Stream.concat(listeners.stream(), Stream.of(listener)).toList();
  }

  /** Whether the scope in which a request arrived has ended. */
  synchronized boolean isOver(Arrival arrival) {
    return !scopes.contains(arrival.scope());
  }

  /** What is worth knowing when the test of the innermost scope failed. */
  public synchronized List<String> notes() {
    return scopes.stream()
        .flatMap(scope -> scope.rules().stream())
        .flatMap(rule -> rule.notes().stream())
        .toList();
  }

  /** Notes what was not expected and is no call; answers whether it is the first of its kind. */
  public synchronized boolean noteUnexpected(String summary, String explanation) {
    return scopes.element().noteUnexpected(summary, explanation);
  }

  /**
   * A request that has arrived.
   *
   * @param number its number among all of them, from 1
   * @param scope the scope that was innermost then; all that comes of the request belongs to it
   * @param carrier what it came by
   */
  record Arrival(long number, StubScope scope, Carrier carrier) {}

  /** Notes that a request has arrived. */
  synchronized Arrival arrive(Carrier carrier) {
    return new Arrival(++arrived, scopes.element(), carrier);
  }

  /**
   * Finds the stub for a request and takes its next answer. Patterns are tried with no lock held:
   * there may be predicates of the user's own in them.
   *
   * @throws StubFailed if such a predicate throws
   */
  Optional<Won> select(Received received) {
    for (StubScope scope : snapshot) {
      for (StubRule rule : candidates(scope, received)) {
        Optional<Map<String, String>> variables = StubFailed.match(rule, received);
        if (variables.isPresent()) {
          Optional<Selected> selected = take(rule);
          if (selected.isPresent()) {
            return Optional.of(new Won(selected.get(), received.with(variables.get())));
          }
        }
      }
    }
    return Optional.empty();
  }

  boolean takesPlainForSecure() {
    return settings.plainAsSecure();
  }

  boolean keepsBodies() {
    return keepingBodies;
  }

  /** Where the body of a request is kept, whose head has arrived: what the stub that wins says. */
  Optional<String> bodyFile(Received head) {
    for (StubScope scope : snapshot) {
      for (StubRule rule : candidates(scope, head)) {
        if (StubFailed.match(rule, head).isPresent()) {
          return rule.bodyFile();
        }
      }
    }
    return Optional.empty();
  }

  /** A stub that won, and the request with the variables that it gives it. */
  record Won(Selected selected, Received received) {}

  void log(LoggedCall call) {
    synchronized (this) {
      call.arrival().scope().log().add(call);
    }
    changed();
  }

  void deliver(LoggedCall call) {
    call.deliver();
    settings.watcher().accept(call);
    changed();
  }

  /** Notes what was not expected; answers whether it is the first of its kind in its scope. */
  synchronized boolean noteUnexpected(Arrival arrival, String summary, String explanation) {
    return arrival.scope().noteUnexpected(summary, explanation);
  }

  synchronized void noteFailure(Arrival arrival, Throwable failure) {
    arrival.scope().noteFailure(failure);
  }

  /**
   * Why no stub answers a request.
   *
   * @param toOurself whether it is for an address that we listen at ourselves
   */
  String explain(Request received, boolean toOurself) {
    Request request = asMeant(received);
    List<Explanation.Stub> stubs = new ArrayList<>();
    synchronized (this) {
      Instant now = now();
      for (StubScope scope : scopes) {
        for (DraftStub draft : scope.drafts()) {
          stubs.add(
              new Explanation.Stub(
                  draft.pattern(), draft.reference(), List.of(DraftStub.OBSTACLE)));
        }
        // What was declared later stands first, as it wins.
        List<StubRule> rules = scope.rules();
        for (int at = rules.size() - 1; at >= 0; at--) {
          StubRule rule = rules.get(at);
          stubs.add(new Explanation.Stub(rule.pattern(), rule.reference(), rule.obstacles(now)));
        }
      }
    }
    List<String> cassettes = new ArrayList<>();
    for (InPlay cassette : cassettesFor(request)) {
      cassettes.add(cassette.toString());
      stubs.addAll(cassette.near(request));
    }
    return Explanation.ofUnexpected(request, stubs, cassettes, toOurself);
  }

  /** A call by plain HTTP is taken for one by HTTPS where its host has stubs for that alone. */
  private Request asMeant(Request request) {
    if (!settings.plainAsSecure() || !PlainCalls.mayMeanSecure(request)) {
      return request;
    }
    Request secured = PlainCalls.secured(request);
    return hasStubsFor(secured) && !hasStubsFor(request) ? secured : request;
  }

  /** Whether there are stubs that name the scheme, host and port of a request. */
  private synchronized boolean hasStubsFor(Request request) {
    boolean plain = request.uri().scheme().equals("http");
    OptionalInt port = OptionalInt.of(request.uri().port());
    return scopes.stream()
        .flatMap(scope -> scope.rules().stream())
        .map(StubRule::pattern)
        .anyMatch(it -> it.isPlain() == plain && it.isFor(request.uri().host(), port));
  }

  private void push(StubScope scope) {
    scopes.push(scope);
    snapshot = List.copyOf(scopes);
  }

  private StubScope pop() {
    StubScope popped = scopes.pop();
    snapshot = List.copyOf(scopes);
    return popped;
  }

  private synchronized List<StubRule> candidates(StubScope scope, Received received) {
    return scope.candidates(received);
  }

  private synchronized Optional<Selected> take(StubRule rule) {
    return rule.take(this::now)
        .map(
            answer -> new Selected(rule, answer, rule.turns().count(), scopes.element().tallies()));
  }

  private void changed() {
    listeners.forEach(Runnable::run);
  }
}
