// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** The last tests whose scopes have ended. Guarded by the lock of {@link Scopes}. */
final class EndedTests {

  private static final int MOST = 10_000;

  /** The scope around each, by the number of the test. */
  private final Map<Long, StubScope> around = new LinkedHashMap<>();

  void add(TestId test, @Nullable StubScope outer) {
    if (test.number() != 0 && outer != null) {
      around.put(test.number(), outer);
      if (around.size() > MOST) {
        around.remove(around.keySet().iterator().next());
      }
    }
  }

  Optional<StubScope> scopeAround(TestId test) {
    return Optional.ofNullable(around.get(test.number()));
  }
}
