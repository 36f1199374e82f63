package dev.cachette.internal.calls;

import dev.cachette.calls.Call;
import dev.cachette.calls.Calls;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;

/** The source of the calls of {@link Calls}. */
@FunctionalInterface
public interface Log {

  /**
   * The content of a log at one moment.
   *
   * @param calls the calls, in order of arrival
   * @param dropped the number of earlier calls that were dropped
   * @param interruptedAfter how long a thread waited for it that was interrupted
   */
  record Entries(List<Call> calls, long dropped, Optional<Duration> interruptedAfter) {

    /** Creates the content, without an interrupted thread. */
    public Entries(List<Call> calls, long dropped) {
      this(calls, dropped, Optional.empty());
    }

    /** Copies the list. */
    public Entries {
      calls = List.copyOf(calls);
    }
  }

  /** Returns its current content. */
  Entries entries();

  /** Reports what is probably a mistake in an assertion that holds. */
  default void warn(String message) {}

  /**
   * Waits until its content meets a condition, or until the timeout.
   *
   * @return its content then
   */
  default Entries await(Predicate<Entries> wanted, Duration atMost) {
    return entries();
  }
}
