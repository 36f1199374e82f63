// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import java.util.ArrayList;
import java.util.List;

/** Calls for tests that were over, with their classes, so that only the whole run can fail. */
final class LateCalls {

  /** More are not kept. */
  private static final int MOST = 20;

  /** Their explanations, each once. Guarded by itself. */
  private static final List<String> ALL = new ArrayList<>();

  private LateCalls() {}

  static void add(String explanation) {
    synchronized (ALL) {
      if (ALL.size() < MOST && !ALL.contains(explanation)) {
        ALL.add(explanation);
      }
    }
  }

  /** Returns the explanations so far, and forgets them. */
  static List<String> take() {
    synchronized (ALL) {
      List<String> taken = List.copyOf(ALL);
      ALL.clear();
      return taken;
    }
  }
}
