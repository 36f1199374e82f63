// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases;

import dev.cachette.http.Request;
import dev.cachette.internal.cases.CallChoice.Asked;
import dev.cachette.internal.cassette.FailedConnection;
import dev.cachette.replay.CaseFinding;
import dev.cachette.replay.CaseFinding.Kind;
import dev.cachette.result.Cause;
import dev.cachette.result.Difference;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/**
 * Pairs the outgoing calls of a step with those that were captured: first the same ones, then the
 * closest for the same resource. What is left is missing or new.
 */
public final class CallPairs {

  private final List<CaseExchange> captured;
  private final List<Asked> asked;

  /** By the index of the captured call: the index of the one that was made. */
  private final Map<Integer, Integer> pairs = new TreeMap<>();

  private CallPairs(List<CaseExchange> captured, List<Asked> asked) {
    this.captured = captured;
    this.asked = asked;
  }

  /** Pairs calls that were made. */
  public static CallPairs of(List<CaseExchange> captured, List<Asked> asked) {
    CallPairs found = new CallPairs(captured, asked);
    found.pair();
    return found;
  }

  /** Pairs calls that were captured again. */
  public static CallPairs ofExchanges(List<CaseExchange> captured, List<CaseExchange> again) {
    return of(
        captured,
        again.stream()
            .map(it -> new Asked(it.exchange().request(), it.exchange().started()))
            .toList());
  }

  /** Two calls for the same resource, by their indexes. */
  private record Candidate(int captured, int asked, int differences) {}

  private void pair() {
    List<Candidate> candidates = new ArrayList<>();
    for (int made = 0; made < asked.size(); made++) {
      Asked call = asked.get(made);
      for (int at = 0; at < captured.size(); at++) {
        if (CallComparison.isSameResource(captured.get(at), call.request(), call.at())) {
          candidates.add(new Candidate(at, made, differences(at, made).size()));
        }
      }
    }
    candidates.sort(Comparator.comparing(Candidate::differences));
    for (Candidate each : candidates) {
      if (!pairs.containsKey(each.captured) && !pairs.containsValue(each.asked)) {
        pairs.put(each.captured, each.asked);
      }
    }
  }

  private List<Difference> differences(int at, int made) {
    Asked call = asked.get(made);
    return CallComparison.differences(captured.get(at), call.request(), call.at());
  }

  /** Returns the indexes of calls that were made, by those of the captured ones. */
  public Map<Integer, Integer> pairs() {
    return Map.copyOf(pairs);
  }

  /** Returns the differences. */
  public List<CaseFinding> findings() {
    List<CaseFinding> found = new ArrayList<>();
    for (int at = 0; at < captured.size(); at++) {
      CaseExchange expected = captured.get(at);
      Integer made = pairs.get(at);
      if (made != null) {
        differences(at, made).forEach(it -> found.add(finding(asked.get(made).request(), it)));
      } else if (!expected.exchange().request().method().equals(FailedConnection.METHOD)) {
        found.add(
            new CaseFinding(
                Kind.CALL_MISSING, line(expected.exchange().request()), "", "", "", ""));
      }
    }
    for (int made = 0; made < asked.size(); made++) {
      if (!pairs.containsValue(made)) {
        Request request = asked.get(made).request();
        found.add(new CaseFinding(Kind.CALL_NEW, line(request), "", "", "", cause(request)));
      }
    }
    return found;
  }

  private static CaseFinding finding(Request request, Difference difference) {
    return new CaseFinding(
        Kind.CALL_CHANGED,
        line(request),
        difference.at(),
        difference.expected(),
        difference.actual(),
        difference.cause().map(Cause::toString).orElse(""));
  }

  private String cause(Request request) {
    long times =
        captured.stream().filter(it -> line(it.exchange().request()).equals(line(request))).count();
    return times == 0
        ? ""
        : "captured " + (times == 1 ? "once" : times + " times") + ", made once more";
  }

  /** Returns the request line of a call. */
  public static String line(Request request) {
    return request.method() + " " + request.uri();
  }
}
