// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.limit;

import java.time.Duration;
import java.util.function.LongSupplier;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * The time that it may take to decide about one call. What may take long asks {@link #check} now
 * and then. What cannot ask, such as a predicate of a user, is given up from outside, by {@link
 * #giveUp}.
 *
 * <p>The limit in force belongs to the thread, as conditions are called through interfaces that
 * users implement. Safe for use by the deciding thread and by one that watches it.
 */
public final class TimeLimit {

  private static final ThreadLocal<TimeLimit> CURRENT = new ThreadLocal<>();

  /** Reading a clock costs more than most steps. */
  private static final int STEPS = 256;

  /** The steps of a few milliseconds. */
  private static final int LEAST_STEPS = 100_000;

  private final Duration atMost;
  private final LongSupplier nanos;
  private volatile long end;
  private volatile boolean givenUp;
  private volatile @Nullable Supplier<String> stub;
  private volatile @Nullable Supplier<String> condition;
  private int steps;

  /**
   * Creates a limit that begins now.
   *
   * @param nanos a source of real time, in nanoseconds
   */
  public TimeLimit(Duration atMost, LongSupplier nanos) {
    this.atMost = atMost;
    this.nanos = nanos;
    restart();
  }

  /** Lets the time begin again, for the next part of the work. */
  public void restart() {
    steps = 0;
    end = nanos.getAsLong() + atMost.toNanos();
  }

  /** Does work under this limit, on this thread. */
  public <T> T within(Supplier<T> work) {
    TimeLimit outer = CURRENT.get();
    CURRENT.set(this);
    try {
      return work.get();
    } finally {
      if (outer == null) {
        CURRENT.remove();
      } else {
        CURRENT.set(outer);
      }
    }
  }

  /** Returns how much time is left; negative if it is up. */
  public Duration left() {
    return Duration.ofNanos(end - nanos.getAsLong());
  }

  /** Lets every later {@link #check} of the deciding thread fail. */
  public void giveUp() {
    givenUp = true;
  }

  /** Returns the exception for what is being tested. */
  public TimeLimitExceeded exceeded() {
    Supplier<String> lastStub = stub;
    Supplier<String> lastCondition = condition;
    String what =
        lastStub == null
            ? "what answers this call"
            : lastCondition == null
                ? "whether the stub " + lastStub.get() + " matches"
                : "the condition \"" + lastCondition.get() + "\" of the stub " + lastStub.get();
    boolean seconds = atMost.toMillis() % 1_000 == 0;
    return new TimeLimitExceeded(
        what,
        "could not be decided in "
            + (seconds ? atMost.toSeconds() + " s" : atMost.toMillis() + " ms"));
  }

  /**
   * Notes which stub this thread tests from now on.
   *
   * @param name its name and place
   */
  public static void testingStub(Supplier<String> name) {
    TimeLimit limit = CURRENT.get();
    if (limit != null) {
      limit.condition = null;
      limit.stub = name;
    }
  }

  /**
   * Notes which condition this thread tests from now on.
   *
   * @param words the condition
   * @throws TimeLimitExceeded if the time is up
   */
  public static void testingCondition(Supplier<String> words) {
    TimeLimit limit = CURRENT.get();
    if (limit != null) {
      limit.condition = words;
      limit.require();
    }
  }

  /**
   * To be called in each step of work whose length depends on the input.
   *
   * @throws TimeLimitExceeded if the time is up
   */
  public static void check() {
    TimeLimit limit = CURRENT.get();
    if (limit != null) {
      limit.step();
    }
  }

  /**
   * To be called before the decision takes effect.
   *
   * @throws TimeLimitExceeded if nobody waits for it any more
   */
  public static void requireWanted() {
    TimeLimit limit = CURRENT.get();
    if (limit != null && limit.givenUp) {
      throw limit.exceeded();
    }
  }

  /** Returns a text that asks {@link #check} for each character that is read. */
  static CharSequence checking(String text) {
    TimeLimit limit = CURRENT.get();
    return limit == null ? text : new CheckedText(text, 0, text.length(), limit);
  }

  void step() {
    if (++steps % STEPS == 0) {
      require();
    }
  }

  private void require() {
    // A JVM that stands still, on a busy machine, has not taken long to decide.
    boolean worked = steps >= LEAST_STEPS;
    if (givenUp || worked && end - nanos.getAsLong() < 0) {
      throw exceeded();
    }
  }
}
