package dev.cachette.internal.stub;

import dev.cachette.internal.cassette.InPlay;
import dev.cachette.internal.explain.UnexpectedCalls;
import dev.cachette.internal.explain.UnusedStubs;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.opentest4j.AssertionFailedError;

/**
 * What is to be said at the end of a scope.
 *
 * @param unexpected what was called and not expected
 * @param unanswered stubs that were never given an answer
 * @param failures what went wrong in stubs: what the user's functions threw, checks that did not
 *     hold
 * @param unused stubs that no call used
 * @param notes what is worth knowing when the test failed
 * @param cassettes what was in play
 */
public record ScopeReport(
    List<UnexpectedCalls.Entry> unexpected,
    List<DraftStub> unanswered,
    List<Throwable> failures,
    List<UnusedStubs.Entry> unused,
    List<String> notes,
    List<InPlay> cassettes) {

  /** Copies the lists. */
  public ScopeReport {
    unexpected = List.copyOf(unexpected);
    unanswered = List.copyOf(unanswered);
    failures = List.copyOf(failures);
    unused = List.copyOf(unused);
    notes = List.copyOf(notes);
    cassettes = List.copyOf(cassettes);
  }

  /** Nothing to say. */
  static ScopeReport empty() {
    return new ScopeReport(List.of(), List.of(), List.of(), List.of(), List.of(), List.of());
  }

  /** This report and then another's. */
  ScopeReport and(ScopeReport next) {
    return new ScopeReport(
        joined(unexpected, next.unexpected),
        joined(unanswered, next.unanswered),
        joined(failures, next.failures),
        joined(unused, next.unused),
        joined(notes, next.notes),
        joined(cassettes, next.cassettes));
  }

  /** This report with one more failure. */
  public ScopeReport and(Throwable failure) {
    return new ScopeReport(
        unexpected, unanswered, joined(failures, List.of(failure)), unused, notes, cassettes);
  }

  /**
   * Whether it must fail.
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

  /** What is to be said of stubs that no call used; empty if there is none. */
  public Optional<String> unusedStubs() {
    return unused.isEmpty() ? Optional.empty() : Optional.of(UnusedStubs.text(unused));
  }

  /**
   * Throws what the scope must fail with, all of it in one: a misuse first, the others suppressed.
   *
   * @param onUnexpected whether unexpected calls are a failure
   * @param onUnused whether unused stubs are a failure
   * @throws IllegalStateException if a stub has no answer
   * @throws AssertionFailedError if a stub failed, if there were unexpected calls or unused stubs
   */
  public void raise(boolean onUnexpected, boolean onUnused) {
    List<Throwable> all = new ArrayList<>();
    unanswered.forEach(draft -> all.add(draft.unanswered()));
    all.addAll(failures);
    if (onUnexpected && !unexpected.isEmpty()) {
      all.add(UnexpectedCalls.failure(unexpected));
    }
    if (onUnused) {
      unusedStubs().ifPresent(text -> all.add(new AssertionFailedError(text)));
    }
    if (all.isEmpty()) {
      return;
    }
    Throwable first = all.get(0);
    all.stream().skip(1).filter(next -> next != first).forEach(first::addSuppressed);
    notes.forEach(note -> first.addSuppressed(new AssertionFailedError(note)));
    if (first instanceof Error error) {
      throw error;
    }
    throw (RuntimeException) first;
  }

  private static <T> List<T> joined(List<T> one, List<T> other) {
    return Stream.concat(one.stream(), other.stream()).toList();
  }
}
