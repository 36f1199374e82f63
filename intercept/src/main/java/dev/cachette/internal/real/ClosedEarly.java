// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.real;

import java.io.IOException;

/** Thrown if the service closed the connection before a complete answer. */
final class ClosedEarly extends IOException {

  private static final long serialVersionUID = 1;

  ClosedEarly(String origin) {
    super(origin + " closed the connection before a complete answer");
  }
}
