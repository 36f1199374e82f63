// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.calls.Call;
import java.time.Duration;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;

/**
 * Tells the listener of the settings about calls, one after the other, on a thread of its own: a
 * listener that is slow, or waits for a terminal, must not hold up calls.
 */
final class CallNotices implements Consumer<Call> {

  private static final Duration PATIENCE = Duration.ofMillis(500);

  private final Consumer<Call> listener;
  private final ExecutorService thread;

  /** Starts no thread before the first call. */
  CallNotices(Consumer<Call> listener) {
    this.listener = listener;
    ThreadPoolExecutor single =
        new ThreadPoolExecutor(
            1, 1, 1, TimeUnit.SECONDS, new LinkedBlockingQueue<>(), CallNotices::thread);
    single.allowCoreThreadTimeOut(true);
    this.thread = single;
  }

  @Override
  public void accept(Call call) {
    thread.execute(() -> tell(call));
  }

  private void tell(Call call) {
    try {
      listener.accept(call);
    } catch (RuntimeException thrown) {
      Messages.warn("The call listener threw " + thrown + " for " + call + ".");
    }
  }

  /** Waits a moment until everything is told. */
  void close() {
    thread.shutdown();
    try {
      if (!thread.awaitTermination(PATIENCE.toMillis(), TimeUnit.MILLISECONDS)) {
        int untold = thread.shutdownNow().size();
        Messages.warn(
            "The call listener was still running when Cachette was closed; it has not been told of"
                + " the last "
                + (untold + 1)
                + " calls.");
      }
    } catch (InterruptedException interrupted) {
      Thread.currentThread().interrupt();
    }
  }

  private static Thread thread(Runnable task) {
    Thread thread = new Thread(null, task, "cachette-listener", 0, false);
    thread.setDaemon(true);
    return thread;
  }
}
