// SPDX-License-Identifier: Apache-2.0
package dev.cachette.calls;

import dev.cachette.internal.text.Failed;
import java.util.ArrayList;
import java.util.List;
import org.opentest4j.AssertionFailedError;

/**
 * The comparison of calls with an expected order.
 *
 * @param steps the expected calls, in order
 * @param calls the actual calls, in order
 * @param gaps whether other calls are allowed in between
 * @param found the index of the call for each step; -1 from the first step without one
 */
record CallOrder(List<Selection> steps, List<Call> calls, boolean gaps, List<Integer> found) {

  static CallOrder of(List<Selection> steps, List<Call> calls, boolean gaps) {
    List<Integer> found = new ArrayList<>();
    int at = 0;
    for (Selection step : steps) {
      int place = at < 0 ? -1 : next(step, calls, at, gaps);
      found.add(place);
      at = place < 0 ? -1 : place + 1;
    }
    return new CallOrder(steps, calls, gaps, found);
  }

  boolean holds() {
    return !found.contains(-1) && (gaps || calls.size() == steps.size());
  }

  AssertionFailedError failure() {
    StringBuilder text =
        new StringBuilder("Expected these calls in this order, ")
            .append(gaps ? "other calls allowed in between" : "no other calls")
            .append(":\n\n");
    for (int at = 0; at < steps.size(); at++) {
      boolean held = found.get(at) >= 0;
      text.append(held ? "  ok   " : "  NO   ")
          .append(steps.get(at).description())
          .append(held ? "   is call " + (found.get(at) + 1) : reason(at))
          .append('\n');
    }
    if (!found.contains(-1)) {
      text.append("  NO   there are ")
          .append(calls.size() - steps.size())
          .append(" additional calls\n");
    }
    text.append("\nActual calls:\n");
    text.append(calls.isEmpty() ? "  none" : CallList.of(calls));
    return Failed.of(text.toString());
  }

  /** Returns why a step has no call; only given for the first such step. */
  private String reason(int step) {
    if (step > 0 && found.get(step - 1) < 0) {
      return "";
    }
    int after = step == 0 ? -1 : found.get(step - 1);
    String where = after < 0 ? "" : " after call " + (after + 1);
    int later = next(steps.get(step), calls, after + 1, true);
    if (later >= 0) {
      return "   is not the next call" + where + ", which is call " + (later + 1);
    }
    int before = next(steps.get(step), calls, 0, true);
    return before < 0
        ? "   was never called"
        : "   was not called" + where + ", but before it: call " + (before + 1);
  }

  private static int next(Selection step, List<Call> calls, int from, boolean gaps) {
    int to = gaps ? calls.size() : Math.min(from + 1, calls.size());
    for (int at = from; at < to; at++) {
      if (step.means(calls.get(at))) {
        return at;
      }
    }
    return -1;
  }
}
