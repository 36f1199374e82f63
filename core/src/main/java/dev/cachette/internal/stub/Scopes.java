package dev.cachette.internal.stub;

import dev.cachette.calls.Call;
import dev.cachette.http.Request;
import dev.cachette.internal.explain.Explanation;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;

/**
 * The scopes in force, the innermost first, and all that changes while calls arrive.
 *
 * <p>A stub belongs to the scope that was innermost when it was begun. A call belongs to the scope
 * that is innermost when it arrives. All state is guarded by the lock of this object; nothing is
 * called under it that is not ours.
 */
public final class Scopes {

  private final Deque<StubScope> scopes = new ArrayDeque<>(List.of(new StubScope()));

  /** Begins an inner scope. Stubs of the outer ones answer from their first answer again. */
  public synchronized StubScope enter() {
    scopes.forEach(StubScope::startAgain);
    scopes.push(new StubScope());
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
      report = scopes.pop().report().and(report);
    }
    return report;
  }

  /** Ends all scopes; the outermost begins anew. */
  public synchronized ScopeReport leaveAll() {
    ScopeReport report = leave(scopes.getLast());
    scopes.push(new StubScope());
    return report;
  }

  /** Ends the innermost scope and begins it anew. */
  public synchronized ScopeReport renew() {
    ScopeReport report = scopes.pop().report();
    enter();
    return report;
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
  }

  /** The calls of the innermost scope. */
  public synchronized List<Call> calls() {
    return scopes.element().calls();
  }

  /** Whether a stub in force names this host and port. */
  public synchronized boolean nameDestination(String host, int port) {
    return scopes.stream()
        .flatMap(scope -> scope.rules().stream())
        .anyMatch(rule -> rule.pattern().names(host, port));
  }

  /**
   * Finds the stub for a request, takes its next answer, and logs the call in one step.
   *
   * @param toCall makes the log's entry of the stub that won and its answer
   * @return the call, or empty if no stub fits; then nothing is logged
   */
  synchronized Optional<Call> answer(Request request, Function<StubScope.Selected, Call> toCall) {
    for (StubScope scope : scopes) {
      Optional<StubScope.Selected> selected = scope.take(request);
      if (selected.isPresent()) {
        Call call = toCall.apply(selected.get());
        scopes.element().log(call);
        return Optional.of(call);
      }
    }
    return Optional.empty();
  }

  synchronized void log(Call call) {
    scopes.element().log(call);
  }

  /** Notes what was not expected; answers whether it is the first of its kind in this scope. */
  synchronized boolean noteUnexpected(String summary, String explanation) {
    return scopes.element().noteUnexpected(summary, explanation);
  }

  synchronized String explain(Request request) {
    List<StubRule> rules = new ArrayList<>();
    for (StubScope scope : scopes) {
      rules.addAll(scope.rules());
      for (DraftStub draft : scope.drafts()) {
        if (draft.pattern().match(request).isPresent()) {
          return Explanation.ofUnanswered(request, draft.reference());
        }
      }
    }
    return Explanation.ofUnexpected(request, rules);
  }
}
