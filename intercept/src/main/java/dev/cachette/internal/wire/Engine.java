package dev.cachette.internal.wire;

import io.netty.channel.IoEventLoop;
import io.netty.channel.SingleThreadIoEventLoop;
import io.netty.channel.nio.NioIoHandler;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.ThreadFactory;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;

/**
 * The HTTP engine's one thread, and its start.
 *
 * <p>Loading the engine's classes takes long the first time, and whoever opens us has other things
 * to do meanwhile: attaching, weaving, making clients. So it is loaded on a thread of its own, and
 * what is to be done on the engine's thread waits until that is there.
 */
public final class Engine implements AutoCloseable {

  private static final long PATIENCE_MILLIS = 10_000;

  private final CompletableFuture<IoEventLoop> loop = new CompletableFuture<>();

  /** Done when all tasks so far are handed over: what waits for a future alone has no order. */
  private CompletableFuture<IoEventLoop> handedOver = loop;

  /** All threads there have been: the one that starts, and the one that serves. */
  private final List<Thread> threads = new CopyOnWriteArrayList<>();

  /** Begins to start the engine. */
  public Engine() {
    thread("cachette-start", this::start).start();
  }

  /**
   * Does something on the engine's thread, after all that was asked for before.
   *
   * @return done when the engine has taken the task over; failed where it never will
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

  /** As {@link #execute}, and waits until it is done, or cannot be. */
  void executeAndWait(Consumer<IoEventLoop> task) {
    CompletableFuture<Void> done = new CompletableFuture<>();
    waitFor(
        done,
        ready -> {
          try {
            task.accept(ready);
          } finally {
            done.complete(null);
          }
        });
  }

  /** Waits until what has arrived by now is read. */
  void readWhatHasArrived() {
    CompletableFuture<Void> read = new CompletableFuture<>();
    // A delayed task is not run before the loop has looked at its connections once more.
    waitFor(read, ready -> ready.schedule(() -> read.complete(null), 1, TimeUnit.MILLISECONDS));
  }

  private void waitFor(CompletableFuture<Void> done, Consumer<IoEventLoop> task) {
    execute(task).thenCompose(ready -> done).exceptionally(neverTaken -> null).join();
  }

  /** Does what was asked for, and waits until the threads have ended. */
  @Override
  public void close() {
    try {
      loop.join().shutdownGracefully(0, PATIENCE_MILLIS, TimeUnit.MILLISECONDS);
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
      loop.complete(new SingleThreadIoEventLoop(null, factory, NioIoHandler.newFactory()));
    } catch (RuntimeException | Error failed) {
      loop.completeExceptionally(failed);
    }
  }

  private Thread thread(String name, Runnable task) {
    // Takes nothing over from the test that happens to open us: no thread-locals, no class loader.
    Thread thread = new Thread(null, task, name, 0, false);
    thread.setDaemon(true);
    thread.setContextClassLoader(Engine.class.getClassLoader());
    threads.add(thread);
    return thread;
  }
}
