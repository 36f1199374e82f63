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

  /** Tools differ in the case of escapes (RFC 3986 section 6.2.2.1), and in what they escape. */
  private static final Pattern ESCAPED =
      Pattern.compile("%7B%7B((?:[a-z0-9_:=-]|%3[AD])+)%7D%7D", Pattern.CASE_INSENSITIVE);

  private static final Pattern COLON = Pattern.compile("%3A", Pattern.CASE_INSENSITIVE);
  private static final Pattern EQUALS = Pattern.compile("%3D", Pattern.CASE_INSENSITIVE);

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
    return url.contains("%7")
        ? ESCAPED.matcher(url).replaceAll(found -> OPEN + plain(found.group(1)) + CLOSE)
        : url;
  }

  private static String plain(String name) {
    return EQUALS.matcher(COLON.matcher(name).replaceAll(":")).replaceAll("=");
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
