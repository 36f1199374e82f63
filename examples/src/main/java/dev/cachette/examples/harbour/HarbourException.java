// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.harbour;

/** Thrown if a service of the harbour fails. */
public final class HarbourException extends RuntimeException {

  private static final long serialVersionUID = 1L;

  HarbourException(String message) {
    super(message);
  }

  HarbourException(String message, Throwable cause) {
    super(message, cause);
  }
}
