// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.internal.cassette.LoadedCassette;
import dev.cachette.internal.explain.UnexpectedCallsFailure;
import dev.cachette.internal.explain.UnusedStubsReport;
import dev.cachette.internal.model.DraftStub;
import dev.cachette.internal.text.Failed;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.opentest4j.AssertionFailedError;

/**
 * The report at the end of a scope.
 *
 * @param unexpected unexpected calls
 * @param unanswered stubs without an answer
 * @param failures failures of stubs: functions that threw, checks that failed
 * @param unused stubs without calls
 * @param notes notes for a failed test
 * @param cassettes active cassettes
 */
public record ScopeReport(
    List<UnexpectedCallsFailure.Entry> unexpected,
    List<DraftStub> unanswered,
    List<Throwable> failures,
    List<UnusedStubsReport.Entry> unused,
    List<String> notes,
    List<LoadedCassette> cassettes) {

  /** Copies the lists. */
  public ScopeReport {
    unexpected = List.copyOf(unexpected);
    unanswered = List.copyOf(unanswered);
    failures = List.copyOf(failures);
    unused = List.copyOf(unused);
    notes = List.copyOf(notes);
    cassettes = List.copyOf(cassettes);
  }

  /** An empty report. */
  static ScopeReport empty() {
    return new ScopeReport(List.of(), List.of(), List.of(), List.of(), List.of(), List.of());
  }

  /** Returns this report followed by another one. */
  ScopeReport and(ScopeReport next) {
    return new ScopeReport(
        joined(unexpected, next.unexpected),
        joined(unanswered, next.unanswered),
        joined(failures, next.failures),
        joined(unused, next.unused),
        joined(notes, next.notes),
        joined(cassettes, next.cassettes));
  }

  /** Returns this report with further unused stubs. */
  ScopeReport andUnused(List<UnusedStubsReport.Entry> more) {
    return new ScopeReport(
        unexpected, unanswered, failures, joined(unused, more), notes, cassettes);
  }

  /** Returns this report with an additional failure. */
  public ScopeReport and(Throwable failure) {
    return new ScopeReport(
        unexpected, unanswered, joined(failures, List.of(failure)), unused, notes, cassettes);
  }

  /**
   * Returns true if it must fail the test.
   *
   * @param onUnexpected whether unexpected calls are a failure
   * @param onUnused whether unused stubs are a failure
   */
  public boolean isFailure(boolean onUnexpected, boolean onUnused) {
    return !unanswered.isEmpty()
        || !failures.isEmpty()
        || onUnexpected && !unexpected.isEmpty()
        || onUnused && !unused.isEmpty();
  }

  /** Returns the report on unused stubs; empty if there are none. */
  public Optional<String> unusedStubs() {
    return unused.isEmpty() ? Optional.empty() : Optional.of(UnusedStubsReport.text(unused));
  }

  /**
   * Throws everything that fails the scope, as one: misuse first, the others suppressed.
   *
   * @param onUnexpected whether unexpected calls are a failure
   * @param onUnused whether unused stubs are a failure
   * @throws IllegalStateException if a stub has no answer
   * @throws AssertionFailedError if a stub failed, or if there were unexpected calls or unused
   *     stubs
   */
  public void raise(boolean onUnexpected, boolean onUnused) {
    List<Throwable> all = new ArrayList<>();
    unanswered.forEach(draft -> all.add(draft.unanswered()));
    all.addAll(failures);
    if (onUnexpected && !unexpected.isEmpty()) {
      all.add(UnexpectedCallsFailure.failure(unexpected));
    }
    if (onUnused) {
      unusedStubs().ifPresent(text -> all.add(Failed.of(text)));
    }
    if (all.isEmpty()) {
      return;
    }
    Throwable first = all.get(0);
    all.stream().skip(1).filter(next -> next != first).forEach(first::addSuppressed);
    notes.forEach(note -> first.addSuppressed(Failed.of(note)));
    if (first instanceof Error error) {
      throw error;
    }
    throw (RuntimeException) first;
  }

  private static <T> List<T> joined(List<T> one, List<T> other) {
    return Stream.concat(one.stream(), other.stream()).toList();
  }
}
