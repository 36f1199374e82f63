// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.internal.explain.Explanation;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;

/** The last stubs of ended scopes, for explanations of calls that come too late. Thread-safe. */
final class EndedStubs {

  private static final int MOST = 200;

  private final Deque<Explanation.Stub> stubs = new ArrayDeque<>();

  synchronized void add(StubRule rule) {
    if (stubs.size() == MOST) {
      stubs.removeFirst();
    }
    stubs.add(new Explanation.Stub(rule.pattern(), rule.reference(), List::of));
  }

  synchronized List<Explanation.Stub> all() {
    return List.copyOf(stubs);
  }
}
