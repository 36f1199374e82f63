// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.sweep;

import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/** The scenario, which runs on a thread of its own, so that it can be left if it does not end. */
final class Scenario {

  /** How long it may take to end once it was interrupted. */
  private static final long GRACE_MILLIS = 2_000;

  private final Thread thread;
  private volatile @Nullable Object result;
  private volatile @Nullable Throwable thrown;

  private Scenario(Callable<?> code) {
    thread =
        new Thread(
            () -> {
              try {
                result = code.call();
              } catch (Throwable failure) {
                thrown = failure;
              }
            },
            "cachette-sweep");
    thread.setDaemon(true);
    thread.setContextClassLoader(Thread.currentThread().getContextClassLoader());
  }

  static Scenario start(Callable<?> code) {
    Scenario scenario = new Scenario(code);
    scenario.thread.start();
    return scenario;
  }

  /** Waits; returns true if it has ended. */
  boolean await(long millis) {
    try {
      thread.join(Math.max(1, millis));
    } catch (InterruptedException stopped) {
      thread.interrupt();
      Thread.currentThread().interrupt();
      throw new IllegalStateException("the sweep was interrupted", stopped);
    }
    return !thread.isAlive();
  }

  /** Interrupts it; returns true if it ends. */
  boolean interrupt() {
    thread.interrupt();
    return await(GRACE_MILLIS);
  }

  /** Returns where it is, for a message. */
  String place() {
    return Stream.of(thread.getStackTrace())
        .filter(it -> !it.getClassName().matches("(java|javax|jdk|sun)\\..*"))
        .findFirst()
        .map(it -> " It is at " + it + ".")
        .orElse("");
  }

  @Nullable Object result() {
    return result;
  }

  Optional<Throwable> thrown() {
    return Optional.ofNullable(thrown);
  }
}
