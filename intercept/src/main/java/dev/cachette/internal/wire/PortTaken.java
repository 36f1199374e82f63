// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import java.io.IOException;
import java.net.BindException;
import java.net.InetSocketAddress;

/** The failure to listen at an address, with its fix. */
public final class PortTaken {

  private PortTaken() {}

  /** Returns the exception that names the address. */
  public static IOException at(InetSocketAddress wanted, BindException taken) {
    return new IOException(
        String.format(
            "cannot bind %s:%d: %s. Fix: choose another port, or 0 for a free one.",
            wanted.getAddress().getHostAddress(), wanted.getPort(), taken.getMessage()),
        taken);
  }
}
