package dev.cachette;

import dev.cachette.internal.calls.Log;
import dev.cachette.internal.stub.Scopes;
import java.time.Duration;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Predicate;

/** The log of the innermost scope, with waiting. */
final class ScopeLog implements Log {

  private final Scopes scopes;
  private final Object change = new Object();

  /** The number of waiting threads. Each registers before it looks, so that no change is missed. */
  private final AtomicInteger waiting = new AtomicInteger();

  ScopeLog(Scopes scopes) {
    this.scopes = scopes;
    scopes.onChange(this::changed);
  }

  @Override
  public Entries entries() {
    return scopes.calls();
  }

  @Override
  public Entries await(Predicate<Entries> wanted, Duration atMost) {
    long end = System.nanoTime() + atMost.toNanos();
    waiting.incrementAndGet();
    try {
      synchronized (change) {
        return await(wanted, end);
      }
    } finally {
      waiting.decrementAndGet();
    }
  }

  private Entries await(Predicate<Entries> wanted, long end) {
    while (true) {
      Entries entries = entries();
      long left = end - System.nanoTime();
      if (left <= 0 || wanted.test(entries)) {
        return entries;
      }
      try {
        change.wait(left / 1_000_000, (int) (left % 1_000_000));
      } catch (InterruptedException interrupted) {
        Thread.currentThread().interrupt();
        return entries;
      }
    }
  }

  private void changed() {
    if (waiting.get() > 0) {
      synchronized (change) {
        change.notifyAll();
      }
    }
  }
}
