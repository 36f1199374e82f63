// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.jsonpath;

import dev.cachette.internal.limit.LimitedRegex;
import java.util.regex.Pattern;
import java.util.regex.PatternSyntaxException;

/** I-Regexp (RFC 9485) on top of Java's regular expressions. */
final class Regexes {

  private Regexes() {}

  /** Returns true if a string matches; a malformed expression matches nothing. */
  static boolean fits(String text, String regex, boolean whole) {
    try {
      Pattern pattern = Pattern.compile(toJava(regex));
      return whole ? LimitedRegex.matches(pattern, text) : LimitedRegex.find(pattern, text);
    } catch (PatternSyntaxException malformed) {
      return false;
    }
  }

  /**
   * Translates the dot, which matches anything but line feed and carriage return; Java excludes
   * more.
   */
  private static String toJava(String regex) {
    StringBuilder out = new StringBuilder(regex.length() + 8);
    boolean inClass = false;
    for (int at = 0; at < regex.length(); at++) {
      char c = regex.charAt(at);
      if (c == '\\' && at + 1 < regex.length()) {
        out.append(c).append(regex.charAt(++at));
        continue;
      }
      inClass = c == '[' || inClass && c != ']';
      out.append(c == '.' && !inClass ? "[^\\n\\r]" : String.valueOf(c));
    }
    return out.toString();
  }
}
