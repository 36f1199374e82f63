// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import java.util.concurrent.CountDownLatch;
import java.util.function.IntSupplier;

/** Runs a command until the process is told to stop, and then ends it normally. */
final class Stopping {

  private Stopping() {}

  /** At SIGTERM or Ctrl-C, asks for the end of a capture, and waits for it. */
  static void atSignal(CaptureEnd end) {
    Runtime.getRuntime()
        .addShutdownHook(
            new Thread(
                () -> {
                  if (!end.isDone()) {
                    end.ask();
                    Runtime.getRuntime().halt(end.awaitDone());
                  }
                }));
  }

  /**
   * Waits for SIGTERM or Ctrl-C; never returns.
   *
   * @param ending runs then; returns the exit code
   */
  static void await(IntSupplier ending) {
    Runtime.getRuntime()
        .addShutdownHook(
            new Thread(
                () -> {
                  int code = ending.getAsInt();
                  // Otherwise the exit code would be that of a killed process.
                  Runtime.getRuntime().halt(code);
                }));
    try {
      new CountDownLatch(1).await();
    } catch (InterruptedException interrupted) {
      Thread.currentThread().interrupt();
    }
  }
}
