// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.agent;

import java.io.IOException;

/** Lets Cachette's own calls to real services bypass the hooks. */
public final class InterceptionBypass {

  private static final ThreadLocal<Boolean> OPEN = new ThreadLocal<>();

  private InterceptionBypass() {}

  /**
   * An action that may open connections.
   *
   * @param <T> the type of its result
   */
  @FunctionalInterface
  public interface Action<T> {

    /** Runs the action. */
    T run() throws IOException;
  }

  /** Runs an action on this thread whose connections and look-ups are not intercepted. */
  public static <T> T through(Action<T> action) throws IOException {
    OPEN.set(true);
    try {
      return action.run();
    } finally {
      OPEN.remove();
    }
  }

  static boolean isOpen() {
    return OPEN.get() != null;
  }
}
