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
 * The HTTP engine's threads, and their start. Mostly there is one. Where there are more, the first
 * does what is asked for here, and connections are spread over all of them: whatever belongs to a
 * connection is done on its own thread.
 *
 * <p>Loading the engine's classes takes long the first time, and whoever opens us has other things
 * to do meanwhile: attaching, weaving, making clients. So it is loaded on a thread of its own, and
 * what is to be done on the engine's thread waits until that is there.
 */
public final class Engine implements AutoCloseable {

  private static final long PATIENCE_MILLIS = 10_000;

  private final int serving;
  private final CompletableFuture<IoEventLoop> loop = new CompletableFuture<>();

  /** Set before the loop is there. */
  private @Nullable IoEventLoopGroup all;

  /** Done when all tasks so far are handed over: what waits for a future alone has no order. */
  private CompletableFuture<IoEventLoop> handedOver = loop;

  /** All threads there have been: the one that starts, and those that serve. */
  private final List<Thread> threads = new CopyOnWriteArrayList<>();

  /** Begins to start an engine with one thread. */
  public Engine() {
    this(1);
  }

  /**
   * Begins to start the engine.
   *
   * @param serving how many threads it has
   */
  Engine(int serving) {
    this.serving = serving;
    thread("cachette-start", this::start).start();
  }

  /** All its threads, for connections; to be asked on the engine's thread. */
  IoEventLoopGroup all() {
    return all;
  }

  /**
   * Does something on the engine's thread, the first of them, after all that was asked for before.
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

  /**
   * As {@link #execute}, and waits until it is done, or cannot be; on the other threads, too, what
   * it has asked of them.
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

  /** Waits until what has arrived by now is read. */
  void readWhatHasArrived() {
    CompletableFuture<Void> read = new CompletableFuture<>();
    // A delayed task is not run before the loop has looked at its connections once more.
    waitFor(
        read, ready -> onEach(each -> task -> each.schedule(task, 1, TimeUnit.MILLISECONDS), read));
  }

  /** Completes a future when each thread has come to a task that it is given now. */
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

  /** Does what was asked for, and waits until the threads have ended. */
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
      // The group for several costs more at the start.
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
    // Takes nothing over from the test that happens to open us: no thread-locals, no class loader.
    Thread thread = new Thread(null, task, name, 0, false);
    thread.setDaemon(true);
    thread.setContextClassLoader(Engine.class.getClassLoader());
    threads.add(thread);
    return thread;
  }
}
