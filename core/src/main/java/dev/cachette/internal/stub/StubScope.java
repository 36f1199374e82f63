package dev.cachette.internal.stub;

import dev.cachette.answer.Answer;
import dev.cachette.calls.Call;
import dev.cachette.http.Request;
import dev.cachette.internal.explain.UnexpectedCalls;
import dev.cachette.match.RequestPattern;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** The stubs of one scope, and what happened in it. Guarded by the lock of {@link Scopes}. */
public final class StubScope {

  private static final Comparator<StubRule> WINNER_FIRST =
      Comparator.comparing(StubRule::pattern, RequestPattern.mostSpecificFirst());

  /** The one that wins stands first: the more specific, then the one declared later. */
  private final List<StubRule> rules = new ArrayList<>();

  private final List<DraftStub> drafts = new ArrayList<>();
  private final List<Call> calls = new ArrayList<>();
  private final Map<String, UnexpectedCalls.Entry> unexpected = new LinkedHashMap<>();

  StubScope() {}

  void begin(DraftStub draft) {
    drafts.add(draft);
  }

  void finish(DraftStub draft, StubRule rule) {
    drafts.remove(draft);
    int at = 0;
    while (at < rules.size() && WINNER_FIRST.compare(rules.get(at), rule) < 0) {
      at++;
    }
    rules.add(at, rule);
  }

  boolean holds(DraftStub draft) {
    return drafts.contains(draft);
  }

  /** The stub that wins in this scope; its turn goes on by one. */
  Optional<Selected> take(Request request) {
    for (StubRule rule : rules) {
      Optional<Map<String, String>> variables = rule.pattern().match(request);
      if (variables.isPresent()) {
        return Optional.of(new Selected(rule, variables.get(), rule.answers().next()));
      }
    }
    return Optional.empty();
  }

  void log(Call call) {
    calls.add(call);
  }

  /** Notes an unexpected call; answers whether it is the first of its kind. */
  boolean noteUnexpected(String summary, String explanation) {
    UnexpectedCalls.Entry noted =
        unexpected.merge(
            summary,
            new UnexpectedCalls.Entry(summary, explanation, 1),
            (old, unused) ->
                new UnexpectedCalls.Entry(summary, old.explanation(), old.times() + 1));
    return noted.times() == 1;
  }

  List<StubRule> rules() {
    return rules;
  }

  List<DraftStub> drafts() {
    return drafts;
  }

  List<Call> calls() {
    return List.copyOf(calls);
  }

  void startAgain() {
    rules.forEach(rule -> rule.answers().startAgain());
  }

  ScopeReport report() {
    return new ScopeReport(List.copyOf(unexpected.values()), drafts);
  }

  /** A stub that won, with the values of its variables and the answer whose turn it is. */
  record Selected(StubRule rule, Map<String, String> variables, Answer answer) {}
}
