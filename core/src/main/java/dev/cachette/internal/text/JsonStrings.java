// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.text;

import java.util.function.BinaryOperator;
import java.util.function.UnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Changes strings in JSON text, or in text that contains JSON, and leaves everything else
 * unchanged. Does not use a regular expression for strings: Java's fail on long strings with many
 * escapes.
 */
public final class JsonStrings {

  private static final Pattern MEMBER = Pattern.compile("\"([^\"\\\\]{1,80})\"\\s*:\\s*\"");

  private JsonStrings() {}

  /**
   * Returns the text with changed values of string members.
   *
   * @param change receives the name and the escaped value without quotes, and returns the new value
   */
  public static String changeMembers(String text, BinaryOperator<String> change) {
    Matcher member = MEMBER.matcher(text);
    StringBuilder changed = new StringBuilder();
    int copied = 0;
    int from = 0;
    while (from <= text.length() && member.find(from)) {
      int end = endOf(text, member.end() - 1);
      if (end < 0) {
        break;
      }
      changed.append(text, copied, member.end());
      changed.append(change.apply(member.group(1), text.substring(member.end(), end)));
      copied = end;
      from = end + 1;
    }
    return changed.append(text, copied, text.length()).toString();
  }

  /**
   * Returns the text with changed strings. The function receives and returns each with its quotes.
   */
  public static String changeAll(String text, UnaryOperator<String> change) {
    StringBuilder changed = new StringBuilder();
    int copied = 0;
    for (int at = text.indexOf('"'); at >= 0; at = text.indexOf('"', copied)) {
      int end = endOf(text, at);
      if (end < 0) {
        break;
      }
      changed.append(text, copied, at).append(change.apply(text.substring(at, end + 1)));
      copied = end + 1;
    }
    return changed.append(text, copied, text.length()).toString();
  }

  /** Returns the position of the closing quote of a string; -1 if there is none. */
  private static int endOf(String text, int open) {
    for (int at = open + 1; at < text.length(); at++) {
      if (text.charAt(at) == '\\') {
        at++;
      } else if (text.charAt(at) == '"') {
        return at;
      }
    }
    return -1;
  }
}
