package dev.cachette.internal.explain;

import dev.cachette.calls.StubReference;
import dev.cachette.http.Request;
import dev.cachette.match.Verdict;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Collectors;

/** A stub that might have been meant, with the verdict on the request. */
record Candidate(StubReference stub, Verdict verdict) {

  private static final int SHOWN = 3;

  /** Less than this in common is noise, not help. */
  private static final double NEAR = 0.4;

  /** Those that come near, best first, at most three. */
  static List<Candidate> nearest(Request request, List<? extends Explanation.Stub> stubs) {
    return stubs.stream()
        .map(stub -> new Candidate(stub.reference(), stub.pattern().examine(request)))
        .filter(candidate -> candidate.verdict.nearness() >= NEAR)
        .sorted(Comparator.comparingDouble(candidate -> -candidate.verdict.nearness()))
        .limit(SHOWN)
        .toList();
  }

  /** One line a condition; what does not hold with expected, actual and cause below. */
  String conditions() {
    int width =
        verdict.checks().stream().mapToInt(check -> check.condition().length()).max().orElse(0);
    return verdict.checks().stream().map(check -> check.lines(width)).collect(Collectors.joining());
  }
}
