// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.text;

import java.util.function.UnaryOperator;
import java.util.regex.Pattern;

/** Placeholders in text, {@code {{name}}}, which stay readable in every encoding. */
public final class Placeholders {

  /** The beginning of a placeholder. */
  public static final String OPEN = "{{";

  /** The end of a placeholder. */
  public static final String CLOSE = "}}";

  private static final Pattern ESCAPED = Pattern.compile("%7B%7B([A-Za-z0-9_:=-]+)%7D%7D");

  /** The forms of a secret: {@code {{name:base64}}}. */
  private static final Pattern FORM =
      Pattern.compile("bytes|form|url|json(-slash)?|xml|base64(url)?(-bare)?");

  private Placeholders() {}

  /** Returns true if a text begins and ends like a placeholder. */
  public static boolean is(String text) {
    return text.startsWith(OPEN) && text.endsWith(CLOSE);
  }

  /** Returns true if a text has the beginning or the end of one. */
  public static boolean isIn(String text) {
    return text.contains(OPEN) || text.contains(CLOSE);
  }

  /** Returns a URL in which placeholders are not percent-encoded, as files have to write them. */
  public static String unescaped(String url) {
    return url.contains("%7B%7B") ? ESCAPED.matcher(url).replaceAll("{{$1}}") : url;
  }

  /** Returns true if a name and a value in a text are the name and the form of a placeholder. */
  public static boolean isForm(String text, int name, String value, int end) {
    return text.startsWith(OPEN, name - OPEN.length())
        && text.startsWith(CLOSE, end)
        && FORM.matcher(value).matches();
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
