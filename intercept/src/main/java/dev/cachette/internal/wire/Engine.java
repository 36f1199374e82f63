package dev.cachette.internal.wire;

import io.netty.channel.IoEventLoop;
import io.netty.channel.SingleThreadIoEventLoop;
import io.netty.channel.nio.NioIoHandler;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
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
final class Engine implements AutoCloseable {

  private static final long PATIENCE_SECONDS = 10;

  private final CompletableFuture<IoEventLoop> loop = new CompletableFuture<>();

  /** Begins to start the engine. */
  Engine() {
    thread("cachette-start", this::start).start();
  }

  /** Does something on the engine's thread, after all that was asked for before. */
  void execute(Consumer<IoEventLoop> task) {
    loop.thenAccept(ready -> ready.execute(() -> task.accept(ready)));
  }

  /** Waits until what has arrived by now is read. */
  void readWhatHasArrived() {
    CompletableFuture<Boolean> read = new CompletableFuture<>();
    // A delayed task is not run before the loop has looked at its connections once more.
    execute(ready -> ready.schedule(() -> read.complete(true), 1, TimeUnit.MILLISECONDS));
    loop.thenCompose(ready -> read).exceptionally(neverStarted -> false).join();
  }

  /** Does what was asked for, and waits until the thread has ended. */
  @Override
  public void close() {
    try {
      IoEventLoop ending = loop.join();
      ending.shutdownGracefully(0, PATIENCE_SECONDS, TimeUnit.SECONDS);
      if (!ending.awaitTermination(PATIENCE_SECONDS, TimeUnit.SECONDS)) {
        throw new IllegalStateException(
            "The thread cachette-wire did not end within " + PATIENCE_SECONDS + " s.");
      }
    } catch (InterruptedException interrupted) {
      Thread.currentThread().interrupt();
    } catch (CompletionException neverStarted) {
      throw new IllegalStateException("The HTTP engine did not start.", neverStarted.getCause());
    }
  }

  private void start() {
    ThreadFactory threads = task -> thread("cachette-wire", task);
    try {
      EngineDefaults.apply();
      loop.complete(new SingleThreadIoEventLoop(null, threads, NioIoHandler.newFactory()));
    } catch (RuntimeException | Error failed) {
      loop.completeExceptionally(failed);
    }
  }

  private static Thread thread(String name, Runnable task) {
    // Takes nothing over from the test that happens to open us: no thread-locals, no class loader.
    Thread thread = new Thread(null, task, name, 0, false);
    thread.setDaemon(true);
    thread.setContextClassLoader(Engine.class.getClassLoader());
    return thread;
  }
}
