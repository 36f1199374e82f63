// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.misuse;

import java.io.IOException;

/** The failure to listen at an address, with its fix. */
public final class PortTaken {

  private PortTaken() {}

  /** Returns the exception that names the address. */
  public static IOException at(String address, int port, IOException taken) {
    return new IOException(
        String.format(
            "cannot bind %s:%d: %s. Fix: choose another port, or 0 for a free one.",
            address, port, taken.getMessage()),
        taken);
  }
}
