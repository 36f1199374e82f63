// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import java.util.ArrayDeque;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import java.util.Queue;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * Threads for user code, and for what may be slow: the threads that serve connections must not wait
 * for it. They are created on demand.
 */
final class Workers implements AutoCloseable {

  private static final long PATIENCE_MILLIS = 1_000;

  /** More decisions at once only take turns. Computed answers have no limit: they may wait. */
  private static final int MOST_DECISIONS = 32;

  private static final int FRAMES = 8;

  private final Queue<Runnable> waiting = new ArrayDeque<>();
  private final Map<Runnable, Thread> decisions = new HashMap<>();

  /** The tasks of the threads that run user code, in words. */
  private final Map<Thread, String> tasks = new ConcurrentHashMap<>();

  private @Nullable ExecutorService threads;
  private int deciding;
  private boolean closed;

  /** Runs a decision, when it is its turn. */
  synchronized void decide(Runnable decision) {
    if (deciding == MOST_DECISIONS) {
      waiting.add(decision);
    } else {
      deciding++;
      start(() -> decideAll(decision));
    }
  }

  private void decideAll(Runnable first) {
    for (Runnable next = first; next != null; next = next(next)) {
      begin(next);
      next.run();
    }
  }

  private synchronized void begin(Runnable decision) {
    decisions.put(decision, Thread.currentThread());
  }

  /** Returns the decision after this one; null if there is none, or if it was abandoned. */
  private synchronized @Nullable Runnable next(Runnable decision) {
    if (decisions.remove(decision) == null) {
      tasks.remove(Thread.currentThread());
      return null;
    }
    return nextForAnyThread();
  }

  private @Nullable Runnable nextForAnyThread() {
    Runnable next = waiting.poll();
    if (next == null) {
      deciding--;
    }
    return next;
  }

  /** Lets another thread take the place of the one that is busy with this decision, if one is. */
  synchronized void abandon(Runnable decision) {
    Thread stuck = decisions.remove(decision);
    if (stuck == null) {
      return;
    }
    tasks.put(stuck, "the decision which stub answers a call");
    Runnable next = nextForAnyThread();
    if (next != null) {
      start(() -> decideAll(next));
    }
    stuck.interrupt();
  }

  /**
   * Runs a task of any length; after closing, tasks are dropped, because nobody is left to answer.
   *
   * @param what the call that it is for
   */
  synchronized void execute(String what, Runnable task) {
    start(
        () -> {
          tasks.put(Thread.currentThread(), "the answer to " + what);
          try {
            task.run();
          } finally {
            tasks.remove(Thread.currentThread());
          }
        });
  }

  private void start(Runnable task) {
    if (closed) {
      return;
    }
    if (threads == null) {
      threads = Executors.newCachedThreadPool(Workers::thread);
    }
    threads.execute(task);
  }

  /**
   * Interrupts running tasks, and waits a moment for the threads to end.
   *
   * @throws WireServer.Abandoned if some do not; it says what they are doing
   */
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
      if (!ending.awaitTermination(PATIENCE_MILLIS, TimeUnit.MILLISECONDS) && !tasks.isEmpty()) {
        throw new WireServer.Abandoned(abandoned());
      }
    } catch (InterruptedException interrupted) {
      Thread.currentThread().interrupt();
    }
  }

  private String abandoned() {
    return tasks.entrySet().stream()
        .map(task -> task.getValue() + ", in thread " + trace(task.getKey()))
        .collect(
            Collectors.joining(
                "\n",
                "Cachette was closed while code of yours was still running, and did not wait for"
                    + " it:\n",
                "\nFix: let it end when its thread is interrupted."));
  }

  private static String trace(Thread thread) {
    return Arrays.stream(thread.getStackTrace())
        .limit(FRAMES)
        .map(frame -> "\n    at " + frame)
        .collect(Collectors.joining("", thread.getName() + ":", ""));
  }

  private static Thread thread(Runnable task) {
    Thread thread = new Thread(null, task, "cachette-answer", 0, false);
    thread.setDaemon(true);
    return thread;
  }
}
