// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cassette;

/**
 * Thrown if a cassette is missing, cannot be read, or must not be written. The message names the
 * file, the place in it as line, column and path if there is one, and the fix. No data is lost: an
 * existing file is unchanged.
 */
public final class CassetteException extends RuntimeException {

  private static final long serialVersionUID = 1;

  /** Creates an exception with the reason and the fix. */
  public CassetteException(String message) {
    super(message);
  }

  /** Creates an exception with the reason, the fix, and the cause. */
  public CassetteException(String message, Throwable cause) {
    super(message, cause);
  }
}
