// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

/** A note on a failure, printed below it as suppressed. */
final class Note extends Exception {

  private static final long serialVersionUID = 1;

  Note(String text) {
    super(text, null, false, false);
  }

  /** Returns the text alone. */
  @Override
  public String toString() {
    return getMessage();
  }
}
