// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.sweep;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/**
 * The conditions on a run: its result is right, and the invariants hold.
 *
 * @param ofResult throws if a result is wrong
 * @param invariants each throws if it does not hold, by name
 * @param <T> the result of the scenario
 */
record Checks<T>(Optional<Consumer<T>> ofResult, Map<String, Runnable> invariants) {

  /** Returns why a result is wrong. */
  @SuppressWarnings("unchecked")
  Optional<Throwable> wrong(@Nullable Object result) {
    try {
      ofResult.ifPresent(it -> it.accept((T) result));
      return Optional.empty();
    } catch (AssertionError | RuntimeException wrong) {
      return Optional.of(wrong);
    }
  }

  /** Returns the invariants that do not hold, each with the reason. */
  Map<String, Throwable> broken() {
    Map<String, Throwable> broken = new LinkedHashMap<>();
    invariants.forEach(
        (name, invariant) -> {
          try {
            invariant.run();
          } catch (AssertionError | RuntimeException failure) {
            broken.put(name, failure);
          }
        });
    return broken;
  }
}
