// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.uri;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.Locale;

/** Percent-encoding, RFC 3986 section 2.1, tolerant of what real clients send. */
public final class Percent {

  private static final String UNRESERVED_MARKS = "-._~";

  /**
   * Characters that {@link java.net.URI} accepts in a path or query, besides letters and digits.
   */
  private static final String URI_CHARACTERS = "-._~!$&'()*+,;=:@/?%";

  private Percent() {}

  /** Decodes every valid escape as UTF-8; invalid escapes are unchanged. */
  public static String decode(String raw) {
    return raw.indexOf('%') < 0 ? raw : decodeEscapes(raw);
  }

  /** As {@link #decode}, with a plus sign as a space, as in HTML forms. */
  public static String decodeForm(String raw) {
    return decode(raw.replace('+', ' '));
  }

  /**
   * Returns the text in normal form, in which equivalent escapes are equal (RFC 3986 section
   * 6.2.2): unreserved characters plain, hexadecimal digits in upper case, everything outside ASCII
   * escaped.
   */
  public static String normalise(String raw) {
    return isNormal(raw) ? raw : normalised(raw);
  }

  private static boolean isNormal(String raw) {
    for (int at = 0; at < raw.length(); at++) {
      if (raw.charAt(at) == '%' || raw.charAt(at) >= 0x80) {
        return false;
      }
    }
    return true;
  }

  private static String normalised(String raw) {
    StringBuilder out = new StringBuilder(raw.length() + 8);
    for (int at = 0; at < raw.length(); ) {
      char c = raw.charAt(at);
      int value = escapeAt(raw, at);
      if (value >= 0) {
        appendNormalised(out, value);
        at += 3;
      } else if (c < 0x80) {
        out.append(c);
        at++;
      } else {
        int codePoint = raw.codePointAt(at);
        at += Character.charCount(codePoint);
        for (byte b : Character.toString(codePoint).getBytes(StandardCharsets.UTF_8)) {
          appendEscape(out, b & 0xff);
        }
      }
    }
    return out.toString();
  }

  /** Escapes every character that {@link java.net.URI} would reject. */
  public static String encodeIllegal(String raw) {
    return isPlain(raw) ? raw : encodedIllegal(raw);
  }

  private static boolean isPlain(String raw) {
    for (int at = 0; at < raw.length(); at++) {
      char c = raw.charAt(at);
      if (!isLetterOrDigit(c) && (c == '%' || URI_CHARACTERS.indexOf(c) < 0)) {
        return false;
      }
    }
    return true;
  }

  private static String encodedIllegal(String raw) {
    StringBuilder out = new StringBuilder(raw.length() + 8);
    for (int at = 0; at < raw.length(); at++) {
      char c = raw.charAt(at);
      boolean strayPercent = c == '%' && escapeAt(raw, at) < 0;
      if (!strayPercent && (isLetterOrDigit(c) || URI_CHARACTERS.indexOf(c) >= 0 || c > 0xa0)) {
        out.append(c);
      } else {
        appendEscape(out, c);
      }
    }
    return out.toString();
  }

  /** Encodes a name or value of a URL-encoded form. */
  public static String encodeForm(String text) {
    StringBuilder out = new StringBuilder(text.length() + 8);
    for (byte b : text.getBytes(StandardCharsets.UTF_8)) {
      if (b == ' ') {
        out.append('+');
      } else if (b > 0 && (isLetterOrDigit((char) b) || "-._*".indexOf(b) >= 0)) {
        out.append((char) b);
      } else {
        appendEscape(out, b & 0xff);
      }
    }
    return out.toString();
  }

  /** Encodes one segment of a path. */
  public static String encodeSegment(String text) {
    return encodeForm(text).replace("+", "%20").replace("%7E", "~").replace("*", "%2A");
  }

  private static String decodeEscapes(String raw) {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream(raw.length());
    for (int at = 0; at < raw.length(); ) {
      int value = escapeAt(raw, at);
      if (value >= 0) {
        bytes.write(value);
        at += 3;
      } else {
        int codePoint = raw.codePointAt(at);
        bytes.writeBytes(Character.toString(codePoint).getBytes(StandardCharsets.UTF_8));
        at += Character.charCount(codePoint);
      }
    }
    return bytes.toString(StandardCharsets.UTF_8);
  }

  private static void appendNormalised(StringBuilder out, int value) {
    if (isLetterOrDigit((char) value) || UNRESERVED_MARKS.indexOf(value) >= 0) {
      out.append((char) value);
    } else {
      appendEscape(out, value);
    }
  }

  private static void appendEscape(StringBuilder out, int value) {
    out.append(String.format(Locale.ROOT, "%%%02X", value));
  }

  private static int escapeAt(String raw, int at) {
    if (raw.charAt(at) != '%' || at + 2 >= raw.length()) {
      return -1;
    }
    int high = Character.digit(raw.charAt(at + 1), 16);
    int low = Character.digit(raw.charAt(at + 2), 16);
    return high < 0 || low < 0 ? -1 : high * 16 + low;
  }

  private static boolean isLetterOrDigit(char c) {
    return c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z' || c >= '0' && c <= '9';
  }
}
