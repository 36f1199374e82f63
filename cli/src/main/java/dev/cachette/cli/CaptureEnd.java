// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.tooling.RunningCommand;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;

/** The end of a capture: asked for at the terminal or by a signal, or that of the application. */
final class CaptureEnd {

  private static final long PAUSE_MILLIS = 100;
  private static final long PATIENCE_SECONDS = 20;

  private final CountDownLatch asked = new CountDownLatch(1);
  private final CountDownLatch done = new CountDownLatch(1);
  private volatile int code = Tool.IMPOSSIBLE;

  /** Asks for the end. */
  void ask() {
    asked.countDown();
  }

  boolean isAsked() {
    return asked.getCount() == 0;
  }

  /** Notes that everything is written, and the exit code. */
  void done(int exitCode) {
    code = exitCode;
    done.countDown();
  }

  boolean isDone() {
    return done.getCount() == 0;
  }

  /** Waits until everything is written; returns the exit code. */
  int awaitDone() {
    try {
      return done.await(PATIENCE_SECONDS, TimeUnit.SECONDS) ? code : Tool.IMPOSSIBLE;
    } catch (InterruptedException interrupted) {
      Thread.currentThread().interrupt();
      return Tool.IMPOSSIBLE;
    }
  }

  /** Waits until the end is asked for, or the application has ended. */
  void await(@Nullable RunningCommand application) {
    try {
      while (!asked.await(PAUSE_MILLIS, TimeUnit.MILLISECONDS)) {
        if (application != null && !application.isRunning()) {
          return;
        }
      }
    } catch (InterruptedException interrupted) {
      Thread.currentThread().interrupt();
    }
  }
}
