// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

/** Thrown if a stub cannot be written to a file; the message says what of it. */
final class Unwritable extends Exception {

  private static final long serialVersionUID = 1;

  Unwritable(String what) {
    super(what, null, false, false);
  }
}
