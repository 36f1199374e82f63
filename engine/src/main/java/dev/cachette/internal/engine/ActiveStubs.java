// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.http.Request;
import dev.cachette.internal.explain.Explanation;
import dev.cachette.internal.explain.Situation;
import dev.cachette.internal.model.DraftStub;
import dev.cachette.match.MatchInternals;
import dev.cachette.match.Received;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** The stubs. */
final class ActiveStubs implements AnswerSource {

  private final Scopes scopes;
  private final HostServices outside;
  private final StubFinder finder;
  private final PlainCalls plain;

  ActiveStubs(Scopes scopes, HostServices outside) {
    this.scopes = scopes;
    this.outside = outside;
    this.finder = new StubFinder(scopes);
    this.plain = new PlainCalls(scopes);
  }

  @Override
  public Optional<ChosenAnswer> choose(ArrivedCall call) {
    return select(call).or(() -> plain.overHttps(call).flatMap(this::select));
  }

  /** Chooses an answer, if that certainly takes little time; empty otherwise. */
  Optional<ChosenAnswer> chooseQuickly(ArrivedCall call) {
    return finder.selectQuickly(call.received()).value().map(won -> answer(call, won));
  }

  /** Finds the stub for a request whose headers have arrived, and what it does with the body. */
  StubFinder finder() {
    return finder;
  }

  private Optional<ChosenAnswer> select(ArrivedCall call) {
    return finder
        .select(call.received())
        .or(() -> headByGet(call.received()))
        .map(won -> answer(call, won));
  }

  private ChosenAnswer answer(ArrivedCall call, StubFinder.Won won) {
    return new StubAnswer(call.with(won.received()), won.selected(), outside);
  }

  /** A stub for GET also answers HEAD, if no stub for HEAD does (RFC 9110 section 9.3.2). */
  private Optional<StubFinder.Won> headByGet(Received received) {
    Request head = received.request();
    if (!head.method().equals("HEAD")) {
      return Optional.empty();
    }
    Request get = new Request("GET", head.uri(), head.headers(), head.body());
    return finder
        .select(MatchInternals.received(get))
        .map(
            won ->
                new StubFinder.Won(
                    won.selected(), MatchInternals.with(received, won.received().variables())));
  }

  @Override
  public ArrivedCall passOn(ArrivedCall call) {
    return plain.asMeant(call);
  }

  @Override
  public Situation situation(ArrivedCall call) {
    return Situation.of(scopes.ask(this::active), scopes.endedStubs());
  }

  private List<Explanation.Stub> active(List<StubScope> all) {
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
}
