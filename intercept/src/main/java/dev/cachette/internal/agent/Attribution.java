// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.agent;

import dev.cachette.calls.MadeBy.Evidence;
import dev.cachette.internal.engine.Maker;
import dev.cachette.internal.engine.TestId;
import java.lang.ref.WeakReference;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicLong;
import org.jspecify.annotations.Nullable;

/**
 * Finds out which test made a call. Numbers of tests are unique in this JVM, so that a call that
 * comes late, in another session, is still known.
 */
public final class Attribution {

  /** The number of tests whose names are known; those of the oldest are forgotten. */
  private static final int MOST = 20_000;

  private static final AtomicLong NUMBERS = new AtomicLong();

  /** By number. Guarded by itself. */
  private static final Map<Long, TestId> TESTS =
      new LinkedHashMap<>() {
        private static final long serialVersionUID = 1;

        @Override
        protected boolean removeEldestEntry(Map.Entry<Long, TestId> eldest) {
          return size() > MOST;
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

  /**
   * Installs the hooks.
   *
   * @throws InterceptionUnavailable if this JVM does not allow it
   */
  public static Attribution install() {
    return new Attribution(Hooks.install());
  }

  /** Returns a new test of this name. */
  public static TestId newTest(String name) {
    long number = NUMBERS.incrementAndGet();
    TestId test = new TestId(number, name, false);
    synchronized (TESTS) {
      TESTS.put(number, test);
    }
    return test;
  }

  /** Notes that a test has ended. */
  public static void end(TestId test) {
    synchronized (TESTS) {
      TESTS.replace(test.number(), new TestId(test.number(), test.name(), true));
    }
  }

  /** From now on, this thread, and what it starts, works for a test. */
  public void begin(TestId test) {
    holder.begin(test.number());
  }

  /** Returns who made the current request on a connection from this port. */
  public Maker at(int port) {
    return maker(holder.madeBy(port));
  }

  /** Returns who made the call that is an HTTP/2 stream of it; unknown for most clients. */
  public Maker at(int port, int stream) {
    return maker(holder.madeBy(port, stream));
  }

  /** Returns what is known of this thread. */
  public Maker current() {
    return maker(holder.current());
  }

  private static Maker maker(Object @Nullable [] found) {
    if (found == null) {
      return Maker.UNKNOWN;
    }
    Attributed known = attributed(found);
    WeakReference<Thread> thread = new WeakReference<>((Thread) found[3]);
    return new Maker(
        test(known.number()),
        known.evidence(),
        Optional.of(known.thread()),
        () -> stack(thread.get()));
  }

  /** From now on, what this thread hands over to others is work with this number. */
  public void handOver(long number) {
    holder.handOver(number);
  }

  /** A connection that this JVM has accepted from a port carries a call; none if it is 0. */
  public void carries(int remotePort, long call) {
    holder.carries(remotePort, call);
  }

  /**
   * The maker of a request, as another JVM can know it.
   *
   * @param number the number of the test or call; 0 for none
   * @param evidence how it is known
   * @param thread the name of the thread
   */
  public record Attributed(long number, Evidence evidence, String thread) {}

  /**
   * Returns the same as {@link #at(int, int)}, or as {@link #at(int)} if the stream is 0, for
   * another JVM; empty if nothing is known.
   */
  public Optional<Attributed> attributed(int port, int stream) {
    Object @Nullable [] found = stream > 0 ? holder.madeBy(port, stream) : holder.madeBy(port);
    return Optional.ofNullable(found).map(Attribution::attributed);
  }

  private static Attributed attributed(Object[] found) {
    return new Attributed((Long) found[0], EVIDENCE[(Integer) found[1]], (String) found[2]);
  }

  /** A new request begins on a connection from this port. */
  public void answered(int port) {
    holder.answered(port);
  }

  private static TestId test(long number) {
    if (number == 0) {
      return TestId.NONE;
    }
    synchronized (TESTS) {
      return TESTS.getOrDefault(number, new TestId(number, "an earlier test", true));
    }
  }

  private static List<StackTraceElement> stack(@Nullable Thread thread) {
    return thread == null ? List.of() : List.of(thread.getStackTrace());
  }
}
