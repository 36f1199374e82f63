// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.text;

import java.util.function.UnaryOperator;

/** Placeholders in text, {@code {{name}}}, which stay readable in every encoding. */
public final class Placeholders {

  /** The beginning of a placeholder. */
  public static final String OPEN = "{{";

  /** The end of a placeholder. */
  public static final String CLOSE = "}}";

  private Placeholders() {}

  /** Returns true if a text begins and ends like a placeholder. */
  public static boolean is(String text) {
    return text.startsWith(OPEN) && text.endsWith(CLOSE);
  }

  /** Returns true if a text has the beginning or the end of one. */
  public static boolean isIn(String text) {
    return text.contains(OPEN) || text.contains(CLOSE);
  }

  /** Encodes a text but for its placeholders. */
  public static String encodeOutside(String text, UnaryOperator<String> encoding) {
    StringBuilder out = new StringBuilder();
    int from = 0;
    for (int open = text.indexOf(OPEN); open >= 0; open = text.indexOf(OPEN, from)) {
      int close = text.indexOf(CLOSE, open);
      if (close < 0) {
        break;
      }
      out.append(encoding.apply(text.substring(from, open)));
      from = close + CLOSE.length();
      out.append(text, open, from);
    }
    return out.append(encoding.apply(text.substring(from))).toString();
  }
}
