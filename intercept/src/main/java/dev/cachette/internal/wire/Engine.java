// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import io.netty.channel.IoEventLoop;
import io.netty.channel.IoEventLoopGroup;
import io.netty.channel.MultiThreadIoEventLoopGroup;
import io.netty.channel.SingleThreadIoEventLoop;
import io.netty.channel.nio.NioIoHandler;
import io.netty.util.concurrent.EventExecutor;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.ThreadFactory;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Consumer;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * The threads of the HTTP engine, and their start. Usually there is one. If there are more, the
 * first runs the tasks submitted here, and connections are spread over all of them: everything
 * about a connection happens on its own thread.
 *
 * <p>Loading the engine's classes takes long the first time, and the opening thread has other work
 * in the meantime: attaching, weaving, creating clients. So it is loaded on a thread of its own,
 * and tasks for the engine's thread wait until then.
 */
public final class Engine implements AutoCloseable {

  private static final long PATIENCE_MILLIS = 10_000;

  private final int serving;
  private final CompletableFuture<IoEventLoop> loop = new CompletableFuture<>();

  /** Set before the loop is available. */
  private @Nullable IoEventLoopGroup all;

  /** Completed when all tasks so far are handed over: waiting for a future alone has no order. */
  private CompletableFuture<IoEventLoop> handedOver = loop;

  /** All threads: the one that starts the engine, and those that serve. */
  private final List<Thread> threads = new CopyOnWriteArrayList<>();

  /** Starts an engine with one thread. */
  public Engine() {
    this(1);
  }

  /**
   * Starts the engine.
   *
   * @param serving its number of threads
   */
  Engine(int serving) {
    this.serving = serving;
    thread("cachette-start", this::start).start();
  }

  /** Returns all its threads, for connections; only on the engine's thread. */
  IoEventLoopGroup all() {
    return all;
  }

  /**
   * Runs a task on the engine's first thread, after all earlier ones.
   *
   * @return completed when the engine has accepted the task; failed if it never will
   */
  public synchronized CompletableFuture<IoEventLoop> execute(Consumer<IoEventLoop> task) {
    handedOver =
        handedOver.thenApply(
            ready -> {
              ready.execute(() -> task.accept(ready));
              return ready;
            });
    return handedOver;
  }

  /**
   * As {@link #execute}, and waits until the task is done, or cannot run; including tasks on the
   * other threads.
   */
  void executeAndWait(Consumer<IoEventLoop> task) {
    CompletableFuture<Void> done = new CompletableFuture<>();
    waitFor(
        done,
        ready -> {
          try {
            task.accept(ready);
          } finally {
            onEach(each -> each::execute, done);
          }
        });
  }

  /** Waits until everything that has arrived is read. */
  void readWhatHasArrived() {
    CompletableFuture<Void> read = new CompletableFuture<>();
    // A delayed task runs only after the loop has polled its connections once more.
    waitFor(
        read, ready -> onEach(each -> task -> each.schedule(task, 1, TimeUnit.MILLISECONDS), read));
  }

  /** Completes a future when each thread has run a new task. */
  private void onEach(
      Function<EventExecutor, Consumer<Runnable>> giving, CompletableFuture<Void> done) {
    AtomicInteger left = new AtomicInteger(serving);
    for (EventExecutor each : all) {
      giving
          .apply(each)
          .accept(
              () -> {
                if (left.decrementAndGet() == 0) {
                  done.complete(null);
                }
              });
    }
  }

  private void waitFor(CompletableFuture<Void> done, Consumer<IoEventLoop> task) {
    execute(task).thenCompose(ready -> done).exceptionally(neverTaken -> null).join();
  }

  /** Runs the remaining tasks, and waits until the threads have ended. */
  @Override
  public void close() {
    try {
      loop.join();
      all.shutdownGracefully(0, PATIENCE_MILLIS, TimeUnit.MILLISECONDS);
      for (Thread thread : threads) {
        thread.join(PATIENCE_MILLIS);
        if (thread.isAlive()) {
          throw new IllegalStateException(
              "The thread " + thread.getName() + " did not end in " + PATIENCE_MILLIS + " ms.");
        }
      }
    } catch (InterruptedException interrupted) {
      Thread.currentThread().interrupt();
    } catch (CompletionException neverStarted) {
      throw new IllegalStateException("The HTTP engine did not start.", neverStarted.getCause());
    }
  }

  private void start() {
    ThreadFactory factory = task -> thread("cachette-wire", task);
    try {
      EngineDefaults.apply();
      // A group of several costs more at start-up.
      all =
          serving == 1
              ? new SingleThreadIoEventLoop(null, factory, NioIoHandler.newFactory())
              : new MultiThreadIoEventLoopGroup(serving, factory, NioIoHandler.newFactory());
      loop.complete(all.next());
    } catch (RuntimeException | Error failed) {
      loop.completeExceptionally(failed);
    }
  }

  private Thread thread(String name, Runnable task) {
    // Inherits nothing from the test that opens it: no thread-locals, no class loader.
    Thread thread = new Thread(null, task, name, 0, false);
    thread.setDaemon(true);
    thread.setContextClassLoader(Engine.class.getClassLoader());
    threads.add(thread);
    return thread;
  }
}
