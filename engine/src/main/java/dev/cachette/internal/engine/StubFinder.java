// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.answer.AnswerInternals;
import dev.cachette.match.MatchInternals;
import dev.cachette.match.Received;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Finds the stub for a request. Patterns are tested with no lock held: they may contain user code.
 */
final class StubFinder {

  private final Scopes scopes;

  StubFinder(Scopes scopes) {
    this.scopes = scopes;
  }

  /** The selected stub, and the request with the variables of its request line. */
  record Won(Selected selected, Received received) {}

  /**
   * The result of a search.
   *
   * @param isKnown false if it would take long to find out
   */
  record Found<T>(boolean isKnown, Optional<T> value) {

    static <T> Found<T> of(Optional<T> value) {
      return new Found<>(true, value);
    }

    static <T> Found<T> unknown() {
      return new Found<>(false, Optional.empty());
    }
  }

  /**
   * Finds the stub for a request, and uses its next answer.
   *
   * @throws StubFailed if a predicate throws
   */
  Optional<Won> select(Received received) {
    return select(received, false).value();
  }

  /** As {@link #select}, if that certainly takes little time. */
  Found<Won> selectQuickly(Received received) {
    return select(received, true);
  }

  private Found<Won> select(Received received, boolean onlyQuickly) {
    List<StubRule> passing = new ArrayList<>(0);
    for (StubScope scope : scopes.open()) {
      for (StubRule rule : scopes.candidates(scope, received)) {
        if (onlyQuickly && !MatchInternals.isQuick(rule.pattern(), received)) {
          return Found.unknown();
        }
        Optional<Map<String, String>> variables = StubFailed.match(rule, received);
        if (variables.isPresent()) {
          Optional<Selected> selected = scopes.take(rule);
          if (selected.filter(it -> AnswerInternals.isPassing(it.answer())).isPresent()) {
            passing.add(rule);
          } else if (selected.isPresent()) {
            return Found.of(
                Optional.of(
                    new Won(
                        selected.get().after(passing),
                        MatchInternals.with(received, variables.get()))));
          }
        }
      }
    }
    return Found.of(Optional.empty());
  }

  /**
   * Returns the file for the body of a request whose headers have arrived.
   *
   * @param onlyQuickly whether to find out only if that certainly takes little time
   * @throws StubFailed if a predicate throws
   */
  Found<String> bodyFile(Received head, boolean onlyQuickly) {
    for (StubScope scope : scopes.open()) {
      for (StubRule rule : scopes.candidates(scope, head)) {
        if (onlyQuickly && !MatchInternals.isQuick(rule.pattern(), head)) {
          return Found.unknown();
        }
        if (StubFailed.match(rule, head).isPresent()) {
          return Found.of(rule.spec().bodyFile());
        }
      }
    }
    return Found.of(Optional.empty());
  }
}
