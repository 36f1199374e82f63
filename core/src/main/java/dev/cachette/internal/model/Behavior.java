// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.model;

import dev.cachette.result.StubReference;

/** How a stub behaves besides its answers, as some services do. A value. */
public sealed interface Behavior permits FailFirst, Flaky, RateLimit {

  /**
   * Begins it.
   *
   * @param stub the stub that behaves so
   * @param seed the seed of what is random
   */
  BehaviorState begin(StubReference stub, long seed);
}
