// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.secret;

import java.util.function.UnaryOperator;

/**
 * Text in large binary content: what is between control characters. Searching all of it would take
 * seconds for each megabyte, as random bytes resemble the beginning of everything.
 */
final class BinaryRuns {

  /** Shorter content is searched as a whole. */
  static final int LONG = 64 * 1024;

  /** The shortest secret with its name and a sign has so many characters. */
  private static final int SHORTEST = 6;

  private BinaryRuns() {}

  /** Returns the text with changed runs; text without control characters is one. */
  static String change(String text, UnaryOperator<String> change) {
    StringBuilder changed = new StringBuilder(text.length());
    int from = 0;
    int readable = 0;
    boolean isNamed = false;
    for (int at = 0; at <= text.length(); at++) {
      boolean ends = at == text.length() || isControl(text.charAt(at));
      if (!ends) {
        char c = text.charAt(at);
        readable = c < 0x7f ? readable + 1 : 0;
        isNamed |= readable >= SHORTEST;
        continue;
      }
      String run = text.substring(from, at);
      changed.append(isNamed ? change.apply(run) : run);
      if (at < text.length()) {
        changed.append(text.charAt(at));
      }
      from = at + 1;
      readable = 0;
      isNamed = false;
    }
    return changed.toString();
  }

  private static boolean isControl(char c) {
    return c < ' ' && c != '\t' && c != '\n' && c != '\r';
  }
}
