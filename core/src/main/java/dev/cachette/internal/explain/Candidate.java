// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.explain;

import dev.cachette.http.Request;
import dev.cachette.internal.finding.CheckText;
import dev.cachette.internal.limit.TimeLimit;
import dev.cachette.internal.masking.RequestMask;
import dev.cachette.internal.match.Verdict;
import dev.cachette.match.MatchInternals;
import dev.cachette.match.Received;
import dev.cachette.result.Check;
import dev.cachette.result.ClosestStub;
import dev.cachette.result.StubReference;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;

/** A stub that may be the intended one, with its verdict on the request. */
record Candidate(StubReference stub, Verdict verdict, boolean isRecorded) {

  private static final int SHOWN = 3;

  /** Examining thousands takes time, and shows nothing more; except a few more that are alike. */
  private static final int EXAMINED = 50;

  private static final int MOST_TIES = 150;

  /** Stubs with less in common are noise, not help. */
  private static final double NEAR = 0.4;

  /** Returns the similar stubs, best first, at most three. */
  static List<Candidate> closest(Request request, List<Explanation.Stub> stubs) {
    RequestMask mask = RequestMask.of(request);
    Received received = MatchInternals.received(request);
    return mostAlike(received, stubs)
        .map(stub -> of(received, stub))
        .filter(candidate -> candidate.verdict.nearness() >= NEAR)
        .sorted(Comparator.comparingDouble(candidate -> -candidate.verdict.nearness()))
        .limit(SHOWN)
        .map(candidate -> candidate.masked(mask))
        .toList();
  }

  /** Returns those whose method and URL are the most alike, in their order. */
  private static Stream<Explanation.Stub> mostAlike(
      Received received, List<Explanation.Stub> stubs) {
    if (stubs.size() <= EXAMINED) {
      return stubs.stream();
    }
    int[] likeness =
        stubs.stream()
            .mapToInt(stub -> MatchInternals.likeness(stub.pattern(), received))
            .toArray();
    int[] sorted = likeness.clone();
    Arrays.sort(sorted);
    int enough = sorted[sorted.length - EXAMINED];
    List<Explanation.Stub> alike = new ArrayList<>();
    int ties = 0;
    for (int at = 0; at < likeness.length; at++) {
      // Of many that are just enough, the first; those that are more alike, always.
      if (likeness[at] > enough || likeness[at] == enough && ties++ < MOST_TIES) {
        alike.add(stubs.get(at));
      }
    }
    return alike.stream();
  }

  private static Candidate of(Received received, Explanation.Stub stub) {
    TimeLimit.testingStub(stub.reference()::toString);
    Verdict verdict =
        MatchInternals.examineIfClose(
            stub.pattern(), stub.seen().map(MatchInternals::received).orElse(received));
    List<Check> conditions =
        Stream.concat(verdict.conditions().stream(), stub.obstacles().get().stream()).toList();
    return new Candidate(
        stub.reference(),
        new Verdict(verdict.line(), conditions, verdict.untested()),
        stub.isRecorded());
  }

  private Candidate masked(RequestMask mask) {
    return new Candidate(stub, verdict.masked(mask), isRecorded);
  }

  /** Returns it as data. */
  ClosestStub shown() {
    return new ClosestStub(stub, verdict.checks());
  }

  /** Returns the check that explains best why it does not answer. */
  Check firstMiss() {
    return verdict.misses().get(0);
  }

  /** Returns one line per condition; failed ones with expected, actual and cause. */
  String conditions() {
    return CheckText.lines(verdict.checks()) + untested();
  }

  private String untested() {
    return switch (verdict.untested()) {
      case 0 -> "";
      case 1 -> "  1 more condition was not tested, because the request line differs.\n";
      default ->
          "  "
              + verdict.untested()
              + " more conditions were not tested, because the request line differs.\n";
    };
  }

  /** Returns the failed conditions only. */
  String misses() {
    return CheckText.lines(verdict.misses());
  }
}
