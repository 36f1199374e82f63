// SPDX-License-Identifier: Apache-2.0
package dev.cachette.calls;

import dev.cachette.internal.calls.Log;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;

/**
 * Counts the calls of a selection in a log that grows. A complete call does not change any more, so
 * it is tested once: many may wait while thousands of calls arrive. Calls that were counted and
 * then dropped from the log stay counted. Not thread-safe.
 */
final class Tally {

  /** The newest calls are tested each time: one that arrived earlier may be logged after them. */
  private static final int NEWEST = 256;

  private final Predicate<Call> counts;

  /** The number of calls that are settled, those that were dropped included. */
  private long settled;

  /** The last of them, to notice if another one was logged before it. */
  private @Nullable Call last;

  private int counted;

  /** Settled calls that are not complete yet. */
  private final List<Call> open = new ArrayList<>();

  /**
   * Creates a tally that begins at zero.
   *
   * @param reached how far a call must have got to count
   */
  Tally(Selection selection, Predicate<Call> reached) {
    this.counts = reached.and(selection::means);
  }

  /** Returns the count for the current content of the log. */
  int of(Log.Entries<Call> entries) {
    List<Call> calls = entries.calls();
    int from = from(entries);
    int to = Math.max(from, calls.size() - NEWEST);
    for (Call call : calls.subList(from, to)) {
      open.add(call);
      last = call;
    }
    settled = entries.dropped() + to;
    open.removeIf(this::isComplete);
    return counted + count(open) + count(calls.subList(to, calls.size()));
  }

  /** Returns the index of the first call that is not settled; 0 to begin again. */
  private int from(Log.Entries<Call> entries) {
    long from = settled - entries.dropped();
    if (from == 0 || from > 0 && entries.calls().get((int) from - 1) == last) {
      return (int) from;
    }
    counted = 0;
    open.clear();
    return 0;
  }

  private boolean isComplete(Call call) {
    if (call.isDelivered()) {
      counted += counts.test(call) ? 1 : 0;
    }
    return call.isDelivered();
  }

  private int count(List<Call> calls) {
    return (int) calls.stream().filter(counts).count();
  }
}
