// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.jsonpath;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.DecimalNode;
import dev.cachette.internal.misuse.Refusals;
import java.math.BigDecimal;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** The text of a query and the current position in it. */
final class Scanner {

  private static final char END = '\0';
  private static final long LARGEST = (1L << 53) - 1;
  private static final Pattern INTEGER = Pattern.compile("0|-?[1-9][0-9]*");
  private static final Pattern NUMBER =
      Pattern.compile("(-0|0|-?[1-9][0-9]*)(\\.[0-9]+)?([eE][-+]?[0-9]+)?");
  private static final Pattern MEMBER =
      Pattern.compile("[A-Za-z_\\x{80}-\\x{10FFFF}][A-Za-z0-9_\\x{80}-\\x{10FFFF}]*");
  private static final Pattern FUNCTION = Pattern.compile("([a-z][a-z0-9_]*)\\(");

  private final String text;
  private int at;

  Scanner(String text) {
    this.text = text;
  }

  String text() {
    return text;
  }

  int position() {
    return at;
  }

  void moveTo(int position) {
    at = position;
  }

  boolean atEnd() {
    return at >= text.length();
  }

  char peek() {
    return atEnd() ? END : text.charAt(at);
  }

  boolean take(String token) {
    boolean there = text.startsWith(token, at);
    at += there ? token.length() : 0;
    return there;
  }

  boolean takeWord(String word) {
    int end = at + word.length();
    boolean goesOn = end < text.length() && Character.isLetterOrDigit(text.charAt(end));
    return !goesOn && take(word);
  }

  void expect(String token) {
    if (!take(token)) {
      throw error("\"" + token + "\" is missing here", "insert it.");
    }
  }

  void skipBlanks() {
    while (!atEnd() && " \t\n\r".indexOf(peek()) >= 0) {
      at++;
    }
  }

  String memberName() {
    return taken(MEMBER)
        .map(Matcher::group)
        .orElseThrow(
            () ->
                error(
                    "a dot must be followed by a name of letters, digits and underscores",
                    "write other names in brackets and quotes: ['vessel-name']."));
  }

  /** Returns the name of a function and skips its parenthesis; empty if there is none. */
  String functionName() {
    return taken(FUNCTION).map(matcher -> matcher.group(1)).orElse("");
  }

  Optional<Long> integer() {
    int start = at;
    return taken(INTEGER).map(matcher -> inRange(matcher.group(), start));
  }

  Optional<JsonNode> number() {
    return taken(NUMBER).map(matcher -> DecimalNode.valueOf(new BigDecimal(matcher.group())));
  }

  String quoted() {
    char quote = text.charAt(at++);
    StringBuilder out = new StringBuilder();
    while (peek() != quote || atEnd()) {
      if (atEnd()) {
        throw error("missing closing quote", "add " + quote + ".");
      }
      char c = text.charAt(at++);
      if (c < ' ') {
        at--;
        throw error("unescaped control character", "write it as \\u" + hex(c) + ".");
      }
      out.append(c == '\\' ? escaped(quote) : c);
    }
    at++;
    return out.toString();
  }

  IllegalArgumentException error(String what, String fix) {
    return Refusals.argument(
        String.format(
            "Malformed JSONPath (RFC 9535), at column %d: %s.\n\n  %s\n  %s^\n\nFix: %s",
            at + 1, what, text, " ".repeat(at), fix));
  }

  private char escaped(char quote) {
    char c = atEnd() ? END : text.charAt(at++);
    return switch (c) {
      case 'b' -> '\b';
      case 'f' -> '\f';
      case 'n' -> '\n';
      case 'r' -> '\r';
      case 't' -> '\t';
      case '/', '\\' -> c;
      case 'u' -> hexadecimal();
      default -> {
        if (c != quote) {
          at--;
          throw error("\\" + c + " is not an escape sequence", "write \\\\ for a backslash.");
        }
        yield c;
      }
    };
  }

  private char hexadecimal() {
    if (at + 4 > text.length() || !text.substring(at, at + 4).matches("[0-9A-Fa-f]{4}")) {
      throw error("\\u needs four hexadecimal digits", "write \\u00e9.");
    }
    at += 4;
    return (char) Integer.parseInt(text.substring(at - 4, at), 16);
  }

  private long inRange(String digits, int start) {
    if (digits.length() > 17 || Math.abs(Long.parseLong(digits)) > LARGEST) {
      at = start;
      throw error("this number is too large for an index", "write one up to 2^53 - 1.");
    }
    return Long.parseLong(digits);
  }

  private Optional<Matcher> taken(Pattern pattern) {
    Matcher matcher = pattern.matcher(text).region(at, text.length());
    if (!matcher.lookingAt()) {
      return Optional.empty();
    }
    at = matcher.end();
    return Optional.of(matcher);
  }

  private static String hex(char c) {
    return String.format("%04x", (int) c);
  }
}
