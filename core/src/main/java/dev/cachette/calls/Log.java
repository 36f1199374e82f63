package dev.cachette.calls;

import java.time.Duration;
import java.util.List;
import java.util.function.Predicate;

/** Where {@link Calls} finds the calls that were made. */
@FunctionalInterface
public interface Log {

  /**
   * What a log holds at one moment.
   *
   * @param calls the calls, in the order they arrived
   * @param dropped how many earlier ones it does not hold any more
   */
  record Entries(List<Call> calls, long dropped) {

    /** Copies the list. */
    public Entries {
      calls = List.copyOf(calls);
    }
  }

  /** What it holds now. */
  Entries entries();

  /**
   * Waits until what it holds is as wanted, or the time is over.
   *
   * @return what it holds then
   */
  default Entries await(Predicate<Entries> wanted, Duration atMost) {
    return entries();
  }
}
