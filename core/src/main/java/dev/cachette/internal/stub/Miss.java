package dev.cachette.internal.stub;

import dev.cachette.http.Request;
import dev.cachette.internal.cassette.LoadedCassette;
import dev.cachette.internal.explain.Explained;
import dev.cachette.internal.explain.Explanation;
import dev.cachette.internal.explain.Situation;
import dev.cachette.match.MatchInternals;
import dev.cachette.result.StubReference;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.OptionalInt;

/** A request that no stub answers: finds what could have, for the explanation. */
final class Miss {

  private final Scopes scopes;

  Miss(Scopes scopes) {
    this.scopes = scopes;
  }

  /**
   * Explains why no stub answers a request.
   *
   * @param ended the last stubs of ended scopes
   * @param toOurself whether its target is an address that Cachette listens on
   */
  Explained explain(
      Request received, List<Explanation.Stub> ended, boolean toOurself, String madeBy) {
    Request request = asMeant(received);
    List<Explanation.Stub> stubs = new ArrayList<>(scopes.ask(this::stubs));
    List<String> cassettes = new ArrayList<>();
    for (LoadedCassette cassette : scopes.cassettesFor(request)) {
      cassettes.add(cassette.toString());
      stubs.addAll(cassette.near(request));
    }
    return Explanation.ofUnexpected(
        request, new Situation(stubs, cassettes, ended, through(), toOurself, madeBy));
  }

  private List<Explanation.Stub> stubs(List<StubScope> all) {
    Instant now = scopes.now();
    List<Explanation.Stub> stubs = new ArrayList<>();
    for (StubScope scope : all) {
      for (DraftStub draft : scope.drafts()) {
        stubs.add(
            new Explanation.Stub(
                draft.pattern(), draft.reference(), () -> List.of(DraftStub.OBSTACLE)));
      }
      // The last declared stub comes first, because it wins.
      List<StubRule> rules = scope.rules();
      for (int at = rules.size() - 1; at >= 0; at--) {
        StubRule rule = rules.get(at);
        stubs.add(
            new Explanation.Stub(
                rule.pattern(),
                rule.reference(),
                () -> scopes.ask(unchanged -> rule.obstacles(now))));
      }
    }
    return stubs;
  }

  private List<StubReference> through() {
    return scopes.ask(
        all ->
            all.stream()
                .flatMap(scope -> scope.through().stream())
                .map(LetThrough::reference)
                .toList());
  }

  /** Treats a plain HTTP call as HTTPS, if its host has stubs for HTTPS only. */
  private Request asMeant(Request request) {
    if (!scopes.takesPlainForSecure() || !PlainCalls.mayMeanSecure(request)) {
      return request;
    }
    Request secured = PlainCalls.secured(request);
    return hasStubsFor(secured) && !hasStubsFor(request) ? secured : request;
  }

  /** Returns true if a stub has the scheme, host and port of a request. */
  private boolean hasStubsFor(Request request) {
    boolean plain = request.uri().scheme().equals("http");
    OptionalInt port = OptionalInt.of(request.uri().port());
    return scopes.rules().stream()
        .map(StubRule::pattern)
        .anyMatch(
            it ->
                MatchInternals.isPlain(it) == plain
                    && MatchInternals.isFor(it, request.uri().host(), port));
  }
}
