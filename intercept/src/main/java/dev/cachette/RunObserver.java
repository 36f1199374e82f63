// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.calls.Call;
import dev.cachette.internal.engine.EndedScope;
import dev.cachette.internal.engine.TestId;
import dev.cachette.internal.openapi.Described;
import java.util.Map;
import java.util.Optional;

/**
 * Sees the scopes and calls of a whole test run, in all its sessions: on the threads that serve
 * them, so nothing in it may wait. Not public API: may change in any release.
 *
 * @hidden
 */
public interface RunObserver {

  /** A session has begun. */
  default void opened(Cachette net) {}

  /** A session is about to end. */
  default void closing(Cachette net) {}

  /**
   * A session has ended, with all its scopes. What this throws, {@link Cachette#close()} throws; it
   * may wait.
   */
  default void closed(Cachette net) {}

  /** A scope was opened for a test, a class, or a session. */
  default void begun(TestId test) {}

  /** A call has arrived in the scope of this test, maybe for a service with an API description. */
  default void arrived(Call call, TestId test, Optional<Described> service) {}

  /** A call was answered; its scope may have ended. */
  default void answered(Call call, TestId test) {}

  /**
   * A run of a fault sweep has been judged.
   *
   * @param run what was done, and what the code did: {@code sweep}, {@code id}, {@code call}, ...
   */
  default void swept(Map<String, Object> run) {}

  /**
   * A scope has ended.
   *
   * @param failure why it fails its test; empty if it does not
   */
  default void ended(EndedScope scope, Optional<String> failure) {}
}
