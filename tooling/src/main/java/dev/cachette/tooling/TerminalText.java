// SPDX-License-Identifier: Apache-2.0
package dev.cachette.tooling;

import dev.cachette.internal.text.Printable;

/** Text of files and messages, safe to print at a terminal. */
public final class TerminalText {

  private TerminalText() {}

  /** Returns a text with control characters but line breaks and tabs as visible escapes. */
  public static String of(String text) {
    return Printable.of(text);
  }
}
