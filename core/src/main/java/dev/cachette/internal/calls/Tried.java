// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.calls;

import java.time.Instant;
import java.util.OptionalInt;

/**
 * An attempt to call that met a fault before there was a request, or that was let through.
 *
 * @param host its host
 * @param port its port; empty if its name was looked up only
 * @param outcome the fault in words, or "let through" with what is known
 * @param at when
 */
public record Tried(String host, OptionalInt port, String outcome, Instant at) {

  private static final String LET_THROUGH = "let through";
  private static final String CONNECTED = LET_THROUGH + ", connected";

  /**
   * Returns one that is for the real destination.
   *
   * @param yet what is true until it is connected; empty if that will not be known
   */
  public static Tried letThrough(String host, int port, String yet, Instant at) {
    String outcome = yet.isEmpty() ? LET_THROUGH : LET_THROUGH + ", " + yet;
    return new Tried(host, OptionalInt.of(port), outcome, at);
  }

  /** Returns true if it was for the real destination. */
  public boolean isLetThrough() {
    return outcome.startsWith(LET_THROUGH);
  }

  /** Returns true if it has reached the real destination, as far as is known. */
  public boolean isConnected() {
    return outcome.equals(CONNECTED) || outcome.equals(LET_THROUGH);
  }

  /** Returns it with that outcome; the calls on the connection are not seen. */
  public Tried connected() {
    return new Tried(host, port, CONNECTED, at);
  }

  /** Returns the host, and the port if it is known. */
  public String destination() {
    return port.isPresent() ? host + ":" + port.getAsInt() : host;
  }
}
