// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.calls.MadeBy;
import dev.cachette.calls.MadeBy.Evidence;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;

/**
 * Who sent a request.
 *
 * @param test the test; {@link TestId#NONE} if it is not known
 * @param evidence how it is known
 * @param thread the name of the thread
 * @param stack the stack of the thread as it is now; empty if it has ended
 */
public record Maker(
    TestId test,
    Evidence evidence,
    Optional<String> thread,
    Supplier<List<StackTraceElement>> stack) {

  /** Nothing is known. */
  public static final Maker UNKNOWN =
      new Maker(TestId.NONE, Evidence.NONE, Optional.empty(), List::of);

  /**
   * Returns it for a connection that several calls share: what a thread of the client wrote there
   * may have been for another one.
   */
  public Maker onSharedConnection() {
    return evidence == Evidence.HANDED_OVER
        ? new Maker(test, Evidence.STARTED_THREAD, thread, stack)
        : this;
  }

  /** Returns what users see of it. */
  public MadeBy shown() {
    return new MadeBy(Optional.of(test.name()).filter(name -> !name.isEmpty()), thread, evidence);
  }
}
