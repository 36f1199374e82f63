// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.calls;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;

/**
 * A log of calls.
 *
 * @param <C> the type of a call
 */
@FunctionalInterface
public interface Log<C> {

  /**
   * The content of a log at one moment.
   *
   * @param <C> the type of a call
   * @param calls the calls, in order of arrival; a list that does not change
   * @param dropped the number of earlier calls that were dropped
   * @param tried the attempts that met a fault before there was a request
   * @param silent the destinations of connections that clients closed without a request
   * @param interruptedAfter how long a thread waited for it that was interrupted
   */
  record Entries<C>(
      List<C> calls,
      long dropped,
      List<Tried> tried,
      List<String> silent,
      Optional<Duration> interruptedAfter) {

    /** Creates the content, without an interrupted thread. */
    public Entries(List<C> calls, long dropped, List<Tried> tried, List<String> silent) {
      this(calls, dropped, tried, silent, Optional.empty());
    }

    /** Copies the lists, except the calls: they must not change. */
    public Entries {
      tried = List.copyOf(tried);
      silent = List.copyOf(silent);
    }
  }

  /** Returns its current content. */
  Entries<C> entries();

  /** Reports what is probably a mistake in an assertion that holds. */
  default void warn(String message) {}

  /**
   * Waits until its content meets a condition, or until the timeout.
   *
   * @return its content then
   */
  default Entries<C> await(Predicate<Entries<C>> wanted, Duration atMost) {
    return entries();
  }
}
