package dev.cachette.internal.calls;

import java.time.Instant;
import java.util.OptionalInt;

/**
 * An attempt to call that met a fault before there was a request, or that was let through.
 *
 * @param host its host
 * @param port its port; empty if its name was looked up only
 * @param outcome the fault in words, or {@link #LET_THROUGH}
 * @param at when
 */
public record Tried(String host, OptionalInt port, String outcome, Instant at) {

  /** The outcome of a connection to the real destination; its calls are not seen. */
  public static final String LET_THROUGH = "let through";

  /** Returns true if it reached the real destination. */
  public boolean isLetThrough() {
    return outcome.equals(LET_THROUGH);
  }

  /** Returns the host, and the port if it is known. */
  public String destination() {
    return port.isPresent() ? host + ":" + port.getAsInt() : host;
  }
}
