// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.explain;

import java.util.List;

/** Explains connections that a client closed after the TLS handshake, without a request. */
public final class SilentConnections {

  private SilentConnections() {}

  /** Returns a paragraph for at least one destination. */
  public static String text(List<String> destinations) {
    return (destinations.size() == 1 ? "A connection" : "Connections")
        + " to "
        + String.join(", ", destinations)
        + (destinations.size() == 1 ? " was" : " were")
        + " opened and closed without a request.\n"
        + "Likely cause: the client refused the certificate, because it pins certificates or has\n"
        + "its own trust manager. Fix: use a client without them in this test.\n";
  }
}
