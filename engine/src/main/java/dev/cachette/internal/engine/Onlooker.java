// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.calls.Call;
import dev.cachette.internal.openapi.Described;
import java.util.Optional;
import java.util.function.Supplier;

/**
 * Is told what happens in scopes, by the threads on which it happens, and partly under the lock of
 * {@link Scopes}: it must not wait, and must not change anything.
 */
public interface Onlooker {

  /** Is told nothing. */
  Onlooker NONE = new Onlooker() {};

  /** A scope was opened. */
  default void begun(TestId test) {}

  /**
   * A call was logged, in the scope of this test.
   *
   * @param service the service with an API description that it is for
   */
  default void arrived(Call call, TestId test, Optional<Described> service) {}

  /** The answer to a call was written completely, or it met its fault; its scope may have ended. */
  default void delivered(Call call, TestId test) {}

  /** A scope has ended; what is known of it can be asked for now only. */
  default void ended(Supplier<EndedScope> scope) {}
}
