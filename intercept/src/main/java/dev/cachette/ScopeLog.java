// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.calls.Call;
import dev.cachette.internal.calls.Log;
import dev.cachette.internal.engine.Scopes;
import java.time.Duration;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Consumer;
import java.util.function.Predicate;

/** The log of the innermost scope, with waiting. */
final class ScopeLog implements Log<Call> {

  /** Of a processor, the part for all tests: one tenth. */
  private static final int SHARE = 10;

  private static final long LONGEST_PAUSE_NANOS = 200_000_000;

  private final Scopes scopes;
  private final Object change = new Object();
  private final AtomicLong changes = new AtomicLong();

  /** The number of waiting threads. Each registers before it looks, so that no change is missed. */
  private final AtomicInteger waiting = new AtomicInteger();

  private final Consumer<String> warning;

  ScopeLog(Scopes scopes, Consumer<String> warning) {
    this.scopes = scopes;
    this.warning = warning;
    scopes.onChange(this::changed);
  }

  @Override
  public Entries<Call> entries() {
    return scopes.calls();
  }

  @Override
  public void warn(String message) {
    warning.accept(message);
  }

  /** Looks at the calls with no lock held: a condition may be slow, and calls must not wait. */
  @Override
  public Entries<Call> await(Predicate<Entries<Call>> wanted, Duration atMost) {
    long start = System.nanoTime();
    long end = start + atMost.toNanos();
    waiting.incrementAndGet();
    try {
      while (true) {
        long seen = changes.get();
        long begin = System.nanoTime();
        Entries<Call> entries = entries();
        if (wanted.test(entries) || end - System.nanoTime() <= 0) {
          return entries;
        }
        long took = System.nanoTime() - begin;
        if (!waitForChange(seen, end) || !pause(took, end)) {
          Duration waited = Duration.ofNanos(System.nanoTime() - start);
          return new Entries<>(
              entries.calls(),
              entries.dropped(),
              entries.tried(),
              entries.silent(),
              Optional.of(waited));
        }
      }
    } finally {
      waiting.decrementAndGet();
    }
  }

  /**
   * Lets the others work before the next test of a long log: together, waiting threads take a tenth
   * of a processor at most.
   *
   * @param took how long the last test took, in nanoseconds
   * @return false if the thread was interrupted
   */
  private boolean pause(long took, long end) {
    long nanos = Math.min(took * SHARE * waiting.get(), LONGEST_PAUSE_NANOS);
    try {
      TimeUnit.NANOSECONDS.sleep(Math.min(nanos, end - System.nanoTime()));
      return true;
    } catch (InterruptedException interrupted) {
      Thread.currentThread().interrupt();
      return false;
    }
  }

  /** Returns false if the thread was interrupted. */
  private boolean waitForChange(long seen, long end) {
    synchronized (change) {
      long left = end - System.nanoTime();
      while (changes.get() == seen && left > 0) {
        try {
          change.wait(left / 1_000_000, (int) (left % 1_000_000));
        } catch (InterruptedException interrupted) {
          Thread.currentThread().interrupt();
          return false;
        }
        left = end - System.nanoTime();
      }
      return true;
    }
  }

  private void changed() {
    changes.incrementAndGet();
    if (waiting.get() > 0) {
      synchronized (change) {
        change.notifyAll();
      }
    }
  }
}
