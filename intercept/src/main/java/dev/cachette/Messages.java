// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.internal.secret.Masking;
import dev.cachette.internal.text.Printable;
import java.time.Instant;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import org.slf4j.LoggerFactory;

/**
 * Warnings: in the log, and the last of this JVM for the live page. Thread-safe. Not public API:
 * may change in any release.
 *
 * @hidden
 */
public final class Messages {

  /** Earlier ones are only in the log. */
  private static final int MOST = 200;

  /** Guarded by itself. */
  private static final Deque<Message> LAST = new ArrayDeque<>();

  private Messages() {}

  /**
   * A warning.
   *
   * @param at when it was given
   * @param text its text; secrets are masked
   */
  public record Message(Instant at, String text) {}

  /** Gets the logger on demand: a logging library is slow to start. */
  static void warn(String text) {
    LoggerFactory.getLogger(Cachette.class).warn(Printable.of(text));
    synchronized (LAST) {
      LAST.addLast(new Message(Instant.now(), Masking.text(text)));
      if (LAST.size() > MOST) {
        LAST.removeFirst();
      }
    }
  }

  /** Returns them, in order. */
  public static List<Message> last() {
    synchronized (LAST) {
      return List.copyOf(LAST);
    }
  }
}
