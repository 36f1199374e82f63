package dev.cachette.internal.explain;

import dev.cachette.calls.StubReference;
import dev.cachette.http.Request;
import dev.cachette.match.Check;
import dev.cachette.match.Verdict;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** A stub that might have been meant, with the verdict on the request. */
record Candidate(StubReference stub, Verdict verdict) {

  private static final int SHOWN = 3;

  /** Less than this in common is noise, not help. */
  private static final double NEAR = 0.4;

  /** Those that come near, best first, at most three. */
  static List<Candidate> nearest(Request request, List<Explanation.Stub> stubs) {
    return stubs.stream()
        .map(stub -> of(request, stub))
        .filter(candidate -> candidate.verdict.nearness() >= NEAR)
        .sorted(Comparator.comparingDouble(candidate -> -candidate.verdict.nearness()))
        .limit(SHOWN)
        .toList();
  }

  private static Candidate of(Request request, Explanation.Stub stub) {
    Verdict verdict = stub.pattern().examine(stub.seen().orElse(request));
    List<Check> conditions =
        Stream.concat(verdict.conditions().stream(), stub.obstacles().stream()).toList();
    return new Candidate(stub.reference(), new Verdict(verdict.line(), conditions));
  }

  /** What tells most about why it does not answer. */
  Check firstMiss() {
    return verdict.misses().get(0);
  }

  /** One line a condition; what does not hold with expected, actual and cause below. */
  String conditions() {
    return lines(verdict.checks());
  }

  /** Only what does not hold. */
  String misses() {
    return lines(verdict.misses());
  }

  private static String lines(List<Check> checks) {
    int width = checks.stream().mapToInt(check -> check.condition().length()).max().orElse(0);
    return checks.stream().map(check -> check.lines(width)).collect(Collectors.joining());
  }
}
