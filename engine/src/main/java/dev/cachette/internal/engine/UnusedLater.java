// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.internal.explain.UnusedStubsReport;
import dev.cachette.result.StubReference;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Unused stubs that are reported at the end of all scopes: stubs of {@code @BeforeEach}, for
 * example, which count as used if any test used the stub declared at that line. Guarded by the lock
 * of {@link Scopes}.
 */
final class UnusedLater {

  /** Declarations in a loop must not fill the memory of a long run. */
  private static final int MOST = 10_000;

  private final Set<StubReference> used = new HashSet<>();
  private final Map<StubReference, UnusedStubsReport.Entry> unused = new LinkedHashMap<>();

  void noteUsed(StubRule rule) {
    if (used.size() < MOST) {
      used.add(rule.reference());
    }
  }

  void add(UnusedStubsReport.Entry entry) {
    if (unused.size() < MOST) {
      unused.putIfAbsent(entry.stub(), entry);
    }
  }

  /** Returns the stubs that no scope used, and forgets everything. */
  List<UnusedStubsReport.Entry> drain() {
    List<UnusedStubsReport.Entry> entries = new ArrayList<>(unused.values());
    entries.removeIf(entry -> used.contains(entry.stub()));
    unused.clear();
    used.clear();
    return entries;
  }
}
