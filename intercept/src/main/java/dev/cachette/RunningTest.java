// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.calls.MadeBy.Evidence;
import dev.cachette.internal.agent.Attribution;
import dev.cachette.internal.engine.TestId;
import java.util.Optional;

/**
 * Notes that a thread works for a test that does not intercept itself, so that its calls are not
 * taken for those of a test that runs at the same time and does. Test framework integrations use
 * it.
 */
public final class RunningTest implements AutoCloseable {

  private final Attribution attribution;

  /** Empty if the thread was known to work for a test already. */
  private final Optional<TestId> noted;

  private RunningTest(Attribution attribution, Optional<TestId> noted) {
    this.attribution = attribution;
    this.noted = noted;
  }

  /**
   * Notes it for the current thread, unless that is known to work for a test already.
   *
   * @param test its name in messages
   * @return ends it; to be closed on the same thread
   * @throws IllegalStateException if this JVM does not allow instrumentation
   */
  public static RunningTest begin(String test) {
    Attribution attribution = Attribution.install();
    boolean known = attribution.current().evidence() == Evidence.TEST_THREAD;
    RunningTest running =
        new RunningTest(
            attribution, known ? Optional.empty() : Optional.of(Attribution.newTest(test)));
    running.noted.ifPresent(attribution::begin);
    return running;
  }

  @Override
  public void close() {
    noted.ifPresent(Attribution::end);
    noted.ifPresent(test -> attribution.begin(TestId.NONE));
  }
}
