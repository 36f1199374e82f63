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

  /** Pairs them. */
  public static CallPairs of(List<CaseExchange> captured, List<Asked> asked) {
    CallPairs found = new CallPairs(captured, asked);
    for (int most = 0; most >= 0; most = found.pair(most)) {
      // Those with fewer differences first.
    }
    return found;
  }

  /** Pairs those with at most so many differences; returns the next number, -1 for none. */
  private int pair(int most) {
    int next = -1;
    for (int made = 0; made < asked.size(); made++) {
      Asked call = asked.get(made);
      if (pairs.containsValue(made)) {
        continue;
      }
      for (int at = 0; at < captured.size() && !pairs.containsValue(made); at++) {
        if (!pairs.containsKey(at)
            && CallComparison.isSameResource(captured.get(at), call.request(), call.at())) {
          int count =
              CallComparison.differences(captured.get(at), call.request(), call.at()).size();
          if (count <= most) {
            pairs.put(at, made);
          } else {
            next = next < 0 ? count : Math.min(next, count);
          }
        }
      }
    }
    return next;
  }

  /** Returns the calls that were made, with what is known of those that were captured. */
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
        Asked call = asked.get(made);
        CallComparison.differences(expected, call.request(), call.at())
            .forEach(it -> found.add(finding(call.request(), it)));
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
