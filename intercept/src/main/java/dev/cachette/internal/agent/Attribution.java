package dev.cachette.internal.agent;

import dev.cachette.calls.MadeBy.Evidence;
import dev.cachette.internal.stub.Maker;
import dev.cachette.internal.stub.TestId;
import java.lang.ref.WeakReference;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicLong;

/**
 * Finds out which test made a call. Numbers of tests are unique in this JVM, so that a call that
 * comes late, in another session, is still known.
 */
public final class Attribution {

  /** The number of tests whose names are known; those of the oldest are forgotten. */
  private static final int MOST_NAMES = 20_000;

  private static final AtomicLong NUMBERS = new AtomicLong();

  /** By number. Guarded by itself. */
  private static final Map<Long, String> NAMES =
      new LinkedHashMap<>() {
        private static final long serialVersionUID = 1;

        @Override
        protected boolean removeEldestEntry(Map.Entry<Long, String> eldest) {
          return size() > MOST_NAMES;
        }
      };

  /** By the order of the numbers in the hook. */
  private static final Evidence[] EVIDENCE = {
    Evidence.NONE,
    Evidence.STARTED_THREAD,
    Evidence.SEVERAL,
    Evidence.HANDED_OVER,
    Evidence.TEST_THREAD
  };

  private final HookHolder holder;

  Attribution(HookHolder holder) {
    this.holder = holder;
  }

  /** Returns a new test of this name. */
  public static TestId newTest(String name) {
    long number = NUMBERS.incrementAndGet();
    synchronized (NAMES) {
      NAMES.put(number, name);
    }
    return new TestId(number, name);
  }

  /** From now on, this thread, and what it starts, works for a test. */
  public void begin(TestId test) {
    holder.begin(test.number());
  }

  /** Returns who made the current request on a connection from this port. */
  public Maker at(int port) {
    Object[] found = holder.madeBy(port);
    if (found == null) {
      return Maker.UNKNOWN;
    }
    WeakReference<Thread> thread = new WeakReference<>((Thread) found[3]);
    return new Maker(
        test((Long) found[0]),
        EVIDENCE[(Integer) found[1]],
        Optional.of((String) found[2]),
        () -> stack(thread.get()));
  }

  /** A new request begins on a connection from this port. */
  public void answered(int port) {
    holder.answered(port);
  }

  private static TestId test(long number) {
    if (number == 0) {
      return TestId.NONE;
    }
    synchronized (NAMES) {
      return new TestId(number, NAMES.getOrDefault(number, "an earlier test"));
    }
  }

  private static List<StackTraceElement> stack(Thread thread) {
    return thread == null ? List.of() : List.of(thread.getStackTrace());
  }
}
