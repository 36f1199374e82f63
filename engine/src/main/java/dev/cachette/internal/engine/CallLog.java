// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.calls.Call;
import dev.cachette.internal.calls.GrowingList;
import dev.cachette.internal.calls.Log;
import dev.cachette.internal.calls.Tried;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;

/**
 * The calls of one scope, in order of arrival; if there are too many, the oldest are dropped.
 * Guarded by the lock of {@link Scopes}.
 */
final class CallLog {

  private static final int MOST_SILENT = 100;

  private final GrowingList<LoggedCall> calls = new GrowingList<>();

  private final List<Tried> tried = new ArrayList<>();
  private final Set<String> silent = new LinkedHashSet<>();
  private final int maxCalls;
  private final long maxBodies;
  private long bodies;
  private long dropped;

  CallLog(int maxCalls, long maxBodies) {
    this.maxCalls = maxCalls;
    this.maxBodies = maxBodies;
  }

  /** Notes a destination that a client connected to, without sending a request. */
  void addSilent(String destination) {
    if (silent.size() < MOST_SILENT) {
      silent.add(destination);
    }
  }

  /** Notes an attempt that met a fault before there was a request. */
  void addTried(Tried attempt) {
    if (tried.size() < maxCalls) {
      tried.add(attempt);
    }
  }

  /** Replaces an attempt whose outcome is known now. */
  void replaceTried(Tried before, Tried now) {
    // By identity, as several may be equal.
    tried.replaceAll(each -> each == before ? now : each);
  }

  void add(LoggedCall call) {
    if (calls.isEmpty() || calls.get(calls.size() - 1).isBefore(call)) {
      calls.add(call);
    } else {
      insert(call);
    }
    bodies += call.size();
    drop();
  }

  /** Counts the body of an answer that a logged call has got. */
  void grow(LoggedCall call, long more) {
    boolean held = !calls.isEmpty() && !call.isBefore(calls.get(0));
    if (held) {
      bodies += more;
      drop();
    }
  }

  private void drop() {
    while (calls.size() > maxCalls || bodies > maxBodies && calls.size() > 1) {
      bodies -= calls.removeFirst().size();
      dropped++;
    }
  }

  /** A call that took long to decide is logged after later arrivals. */
  private void insert(LoggedCall call) {
    int index = calls.size();
    while (index > 0 && call.isBefore(calls.get(index - 1))) {
      index--;
    }
    calls.insert(index, call);
  }

  Log.Entries<Call> entries() {
    return new Log.Entries<>(
        Collections.unmodifiableList(calls.snapshot()), dropped, tried, List.copyOf(silent));
  }
}
