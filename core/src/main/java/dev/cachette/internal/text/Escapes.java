// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.text;

import com.fasterxml.jackson.core.io.JsonStringEncoder;

/** Text within other formats, so that nothing of it is markup there. */
public final class Escapes {

  private static final char FIRST_PRINTABLE = ' ';
  private static final String XML_WHITE_SPACE = "\t\n\r";

  private Escapes() {}

  /** Returns text as one word for a shell (POSIX): everything but a quotation mark is itself. */
  public static String shell(String text) {
    return "'" + text.replace("'", "'\\''") + "'";
  }

  /** Returns text for a string in JSON (RFC 8259 section 7), without quotes around it. */
  public static String json(String text) {
    return new String(JsonStringEncoder.getInstance().quoteAsString(text));
  }

  /**
   * Returns text for elements and attributes of XML 1.0 (section 2.4). Characters that XML cannot
   * have, not even escaped (section 2.2), are left out.
   */
  public static String xml(String text) {
    StringBuilder escaped = new StringBuilder(text.length());
    text.codePoints()
        .filter(Escapes::isInXml)
        .forEach(
            character -> {
              switch (character) {
                case '&' -> escaped.append("&amp;");
                case '<' -> escaped.append("&lt;");
                case '>' -> escaped.append("&gt;");
                case '"' -> escaped.append("&quot;");
                case '\'' -> escaped.append("&apos;");
                default -> escaped.appendCodePoint(character);
              }
            });
    return escaped.toString();
  }

  private static boolean isInXml(int character) {
    return character >= FIRST_PRINTABLE
            && !(character >= Character.MIN_SURROGATE && character <= Character.MAX_SURROGATE)
            && character != 0xfffe
            && character != 0xffff
        || XML_WHITE_SPACE.indexOf(character) >= 0;
  }
}
