package dev.cachette.internal.stub;

import dev.cachette.internal.explain.UnexpectedCalls;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;

/**
 * What is to be said at the end of a scope.
 *
 * @param unexpected what was called and not expected
 * @param unanswered stubs that were never given an answer
 */
public record ScopeReport(List<UnexpectedCalls.Entry> unexpected, List<DraftStub> unanswered) {

  /** Copies the lists. */
  public ScopeReport {
    unexpected = List.copyOf(unexpected);
    unanswered = List.copyOf(unanswered);
  }

  /** Nothing to say. */
  static ScopeReport empty() {
    return new ScopeReport(List.of(), List.of());
  }

  /** This report and then another's. */
  ScopeReport and(ScopeReport next) {
    return new ScopeReport(
        Stream.concat(unexpected.stream(), next.unexpected.stream()).toList(),
        Stream.concat(unanswered.stream(), next.unanswered.stream()).toList());
  }

  /**
   * Throws what the scope must fail with, all of it in one: a misuse first, the others suppressed.
   *
   * @param onUnexpected whether unexpected calls are a failure
   * @throws IllegalStateException if a stub has no answer
   * @throws org.opentest4j.AssertionFailedError if there were unexpected calls
   */
  public void raise(boolean onUnexpected) {
    List<Throwable> failures = new ArrayList<>();
    unanswered.forEach(draft -> failures.add(draft.unanswered()));
    if (onUnexpected && !unexpected.isEmpty()) {
      failures.add(UnexpectedCalls.failure(unexpected));
    }
    if (failures.isEmpty()) {
      return;
    }
    Throwable first = failures.get(0);
    failures.stream().skip(1).forEach(first::addSuppressed);
    if (first instanceof Error error) {
      throw error;
    }
    throw (RuntimeException) first;
  }
}
