package dev.cachette.internal.explain;

import dev.cachette.http.Request;
import dev.cachette.internal.finding.CheckText;
import dev.cachette.internal.masking.RequestMask;
import dev.cachette.internal.match.Verdict;
import dev.cachette.match.MatchInternals;
import dev.cachette.result.Check;
import dev.cachette.result.StubReference;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;

/** A stub that may be the intended one, with its verdict on the request. */
record Candidate(StubReference stub, Verdict verdict, boolean isRecorded) {

  private static final int SHOWN = 3;

  /** Stubs with less in common are noise, not help. */
  private static final double NEAR = 0.4;

  /** Returns the similar stubs, best first, at most three. */
  static List<Candidate> closest(Request request, List<Explanation.Stub> stubs) {
    RequestMask mask = RequestMask.of(request);
    return stubs.stream()
        .map(stub -> of(request, stub))
        .filter(candidate -> candidate.verdict.nearness() >= NEAR)
        .sorted(Comparator.comparingDouble(candidate -> -candidate.verdict.nearness()))
        .limit(SHOWN)
        .map(candidate -> candidate.masked(mask))
        .toList();
  }

  private static Candidate of(Request request, Explanation.Stub stub) {
    Verdict verdict = MatchInternals.examine(stub.pattern(), stub.seen().orElse(request));
    List<Check> conditions =
        Stream.concat(verdict.conditions().stream(), stub.obstacles().stream()).toList();
    return new Candidate(
        stub.reference(), new Verdict(verdict.line(), conditions), stub.isRecorded());
  }

  private Candidate masked(RequestMask mask) {
    return new Candidate(stub, verdict.masked(mask), isRecorded);
  }

  /** Returns the check that explains best why it does not answer. */
  Check firstMiss() {
    return verdict.misses().get(0);
  }

  /** Returns one line per condition; failed ones with expected, actual and cause. */
  String conditions() {
    return CheckText.lines(verdict.checks());
  }

  /** Returns the failed conditions only. */
  String misses() {
    return CheckText.lines(verdict.misses());
  }
}
