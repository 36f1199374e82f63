package dev.cachette.internal.agent;

import java.io.IOException;

/** Lets our own calls to real services pass the hooks. */
public final class Passage {

  private static final ThreadLocal<Boolean> OPEN = new ThreadLocal<>();

  private Passage() {}

  /**
   * Something that may open connections.
   *
   * @param <T> what comes of it
   */
  @FunctionalInterface
  public interface Action<T> {

    /** Does it. */
    T run() throws IOException;
  }

  /** Does something on this thread whose connections and look-ups are not intercepted. */
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
