package dev.cachette.internal.text;

import java.util.function.BinaryOperator;
import java.util.function.UnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Changes strings in a text that is JSON, or has some in it, and leaves all else as it is written.
 * Without an expression for the strings themselves: the JDK's fail on long ones with many escapes.
 */
public final class JsonStrings {

  private static final Pattern MEMBER = Pattern.compile("\"([^\"\\\\]{1,80})\"\\s*:\\s*\"");

  private JsonStrings() {}

  /**
   * The text with other values of members that are strings.
   *
   * @param change takes the name and the value, without its quotes, as it is escaped; and answers
   *     the value
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

  /** The text with other strings. The change takes each with its quotes, and answers it so. */
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

  /** The place of the quote that ends the string which begins at another; -1 if none does. */
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
