package dev.cachette.internal.wire;

import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;

/**
 * Threads for user code, which may be slow: the engine's only thread must not wait for it. They are
 * created on demand.
 */
final class Workers implements AutoCloseable {

  private static final long PATIENCE_SECONDS = 10;

  private @Nullable ExecutorService threads;
  private boolean closed;

  /** Runs a task; after closing, tasks are dropped, because nobody is left to answer. */
  synchronized void execute(Runnable task) {
    if (closed) {
      return;
    }
    if (threads == null) {
      threads = Executors.newCachedThreadPool(Workers::thread);
    }
    threads.execute(task);
  }

  /** Interrupts running tasks, and waits until the threads have ended. */
  @Override
  public void close() {
    ExecutorService ending;
    synchronized (this) {
      closed = true;
      ending = threads;
    }
    if (ending == null) {
      return;
    }
    ending.shutdownNow();
    try {
      if (!ending.awaitTermination(PATIENCE_SECONDS, TimeUnit.SECONDS)) {
        throw new IllegalStateException(
            "A function of a computed answer or check is still running after "
                + PATIENCE_SECONDS
                + " s. Fix: end it when its thread is interrupted.");
      }
    } catch (InterruptedException interrupted) {
      Thread.currentThread().interrupt();
    }
  }

  private static Thread thread(Runnable task) {
    Thread thread = new Thread(null, task, "cachette-answer", 0, false);
    thread.setDaemon(true);
    return thread;
  }
}
