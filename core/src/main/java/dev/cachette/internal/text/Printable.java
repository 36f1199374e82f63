// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.text;

/**
 * Makes text safe for a terminal: what a client has sent could move the cursor, change colours, or
 * hide what follows.
 */
public final class Printable {

  private static final int DELETE = 0x7f;
  private static final int LAST_C1 = 0x9f;

  private Printable() {}

  /**
   * Returns the text with control characters (C0, DEL and C1 of ISO/IEC 6429) as JSON writes them,
   * except tabs and line ends.
   */
  public static String of(String text) {
    for (int at = 0; at < text.length(); at++) {
      if (isControl(text.charAt(at))) {
        return escaped(text);
      }
    }
    return text;
  }

  private static String escaped(String text) {
    StringBuilder printable = new StringBuilder(text.length() + 16);
    for (int at = 0; at < text.length(); at++) {
      char c = text.charAt(at);
      boolean endsLine = c == '\r' && at + 1 < text.length() && text.charAt(at + 1) == '\n';
      if (isControl(c) && !endsLine) {
        printable.append(String.format("\\u%04x", (int) c));
      } else {
        printable.append(c);
      }
    }
    return printable.toString();
  }

  private static boolean isControl(char c) {
    return c < ' ' && c != '\n' && c != '\t' || c >= DELETE && c <= LAST_C1;
  }
}
