package dev.cachette.cli;

import java.util.concurrent.CountDownLatch;
import java.util.function.IntSupplier;

/** Lets a command go on until the process is told to stop, and then end in order. */
final class Stopping {

  private Stopping() {}

  /**
   * Waits for SIGTERM or Ctrl-C; never returns.
   *
   * @param ending what is done then; answers the exit code
   */
  static void await(IntSupplier ending) {
    Runtime.getRuntime()
        .addShutdownHook(
            new Thread(
                () -> {
                  int code = ending.getAsInt();
                  // The code of the signal would say that it was killed.
                  Runtime.getRuntime().halt(code);
                }));
    try {
      new CountDownLatch(1).await();
    } catch (InterruptedException interrupted) {
      Thread.currentThread().interrupt();
    }
  }
}
