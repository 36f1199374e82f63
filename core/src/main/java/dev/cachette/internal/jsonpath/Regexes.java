package dev.cachette.internal.jsonpath;

import java.util.regex.Pattern;
import java.util.regex.PatternSyntaxException;

/** Regular expressions of the interoperable kind (RFC 9485), by means of Java's. */
final class Regexes {

  private Regexes() {}

  /** Whether a text fits; a malformed expression fits nothing. */
  static boolean fits(String text, String regex, boolean whole) {
    try {
      Pattern pattern = Pattern.compile(toJava(regex));
      return whole ? pattern.matcher(text).matches() : pattern.matcher(text).find();
    } catch (PatternSyntaxException malformed) {
      return false;
    }
  }

  /** The dot stands for anything but line feed and carriage return; in Java it leaves out more. */
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
