// SPDX-License-Identifier: Apache-2.0
package dev.cachette.verification;

/** Thrown if a store of contracts cannot be read or written; the message says why. */
public final class StoreException extends RuntimeException {

  private static final long serialVersionUID = 1;

  /** Creates it. */
  public StoreException(String message) {
    super(message);
  }

  /** Creates it with a cause. */
  public StoreException(String message, Throwable cause) {
    super(message, cause);
  }
}
