// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.match;

import dev.cachette.internal.misuse.Refusals;

/** Creates the error for a malformed request line: what, where, and how to fix it. */
final class MalformedRequestLine {

  private final String line;

  MalformedRequestLine(String line) {
    this.line = line;
  }

  /**
   * Returns the error.
   *
   * @param at the position in the line, from 0
   */
  IllegalArgumentException at(int at, String what, String fix) {
    return Refusals.argument(
        String.format(
            "Malformed request line, at column %d: %s\n\n  %s\n  %s^\n\nFix: %s",
            at + 1, what, visible(line), " ".repeat(at), fix));
  }

  /** Escapes line breaks and wide characters, so that the mark below is in the right column. */
  private static String visible(String text) {
    return text.replaceAll("\\p{Cntrl}", "\u00b7");
  }
}
