// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.secret;

import dev.cachette.internal.secret.Secret.Certainty;
import dev.cachette.internal.text.Placeholders;
import java.util.List;
import java.util.Locale;
import java.util.regex.MatchResult;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Finds secrets in text by the name in front of them. */
final class PairsInText {

  /** Replaces a secret. */
  interface Replacing {
    String of(String name, String value, Certainty certainty);
  }

  /** The tag of a value in YAML. */
  private static final Pattern TAG = Pattern.compile("!!?\\w+[ \\t]+");

  /** Three quotes, in YAML, GraphQL and others, or one that is escaped. */
  private static final Pattern QUOTES = Pattern.compile("\\\\?\"(?:\\\\?\"\\\\?\")?");

  private static final String AFTER_BARE = "\"'<>;&";
  private static final String NOT_FIRST_OF_BARE = AFTER_BARE + "{}[(";

  /** The difference between letters of ASCII in upper and lower case. */
  private static final int LOWER_CASE = 0x20;

  /** The next pattern needs one of these, unless there is an option. */
  private static final List<String> WORDS =
      List.of("passw", "passphrase", "token", "secret", "identified");

  /** {@code --password x} and {@code password 'x'}: quoted, or too mixed for a word. */
  private static final Pattern WITHOUT_SIGN =
      Pattern.compile(
          "(?i)(?<![\\w.%])(?:-{1,2}((?:[a-z][a-z0-9]{0,30}-){0,6}[a-z][a-z0-9]{0,30})["
              + " =]{1,3}|(password|passwd|passphrase|token|secret|identified by)\\s{1,3}"
              + "(?:(?:is|was)\\s?:?\\s)?)(?:'([^'\\r"
              + "\\n"
              + "]+)'|\"([^\"\\r"
              + "\\n"
              + "]+)\"|([^\\s\"'<>;&,{}\\[\\]()=:-][^\\s\"'<>;&,]*))");

  /** A version, or the name of an algorithm, after such a word in prose. */
  private static final Pattern TECHNICAL =
      Pattern.compile("(?i)(?:v|sha|md|hs|rs|es|ps|aes|argon|rfc|http|utf|oauth)-?[0-9].*");

  /** A value on the next line, or in a block, of YAML. */
  private static final Pattern NEXT_LINE =
      Pattern.compile(
          "(?m)^([ -]*)[\"']?([A-Za-z][\\w.-]{0,60})[\"']?:[ \\t]*(?:([|>][+-]?)[ \\t]*)?\\r?\\n"
              + "\\1[ \\t]+((?:\\S.*)(?:\\r?\\n\\1[ \\t]+\\S.*){0,50})");

  /** An item of a list in YAML that is a text. */
  private static final Pattern ITEM =
      Pattern.compile("(?m)^ *- +[\"']?([^\\s\"':{\\[][^\\s\"':]*)[\"']?[ \\t]*()$");

  /** The group of a value without quotes, in pairs with and without a sign. */
  private static final int BARE = 5;

  /** Words, variables, and types in definitions. */
  private static final Pattern NOT_A_VALUE =
      Pattern.compile(
          "(?i)null|true|false|none|nil|undefined|required|optional|missing|invalid|expired|yes|no"
              + "|is|was|must|has|\\*+|\\$.*|<.*|\\|[+-]?|text|password"
              + "|\\[?(?:string|id|int|integer|number|float|boolean)!?\\]?!?");

  private final SecretNames names;
  private final Replacing replacing;

  PairsInText(SecretNames names, Replacing replacing) {
    this.names = names;
    this.replacing = replacing;
  }

  /** Returns the text with its secrets replaced. */
  String replace(String text) {
    String replaced = text;
    if (text.indexOf('=') > 0 || text.indexOf(':') > 0) {
      replaced = withSign(replaced);
    }
    if (text.indexOf('-') >= 0 || hasWord(text)) {
      replaced = each(WITHOUT_SIGN, replaced, 0, PairsInText::beginsOption, this::withoutSign);
    }
    return text.indexOf('\n') > 0
        ? each(NEXT_LINE, replaced, 4, PairsInText::beginsLine, this::nextLine)
        : replaced;
  }

  /** Returns true if a word of a text begins like one of these, however it is written. */
  static boolean hasWord(String text) {
    boolean inWord = false;
    for (int at = 0; at < text.length() - 1; at++) {
      boolean isStart = !inWord;
      char c = text.charAt(at);
      inWord = c >= '0' && c <= '9' || c >= 'A' && c <= 'Z' || c >= 'a' && c <= 'z' || c == '_';
      if (isStart && begins(c | LOWER_CASE, text.charAt(at + 1) | LOWER_CASE)) {
        for (String word : WORDS) {
          if (text.regionMatches(true, at, word, 0, word.length())) {
            return true;
          }
        }
      }
    }
    return false;
  }

  /** Returns true for a dash or a word that no other precedes. */
  private static boolean beginsOption(String text, int at) {
    char c = text.charAt(at);
    boolean begins =
        c == '-'
            || at + 1 < text.length() && begins(c | LOWER_CASE, text.charAt(at + 1) | LOWER_CASE);
    return begins
        && (at == 0 || !SignedNames.isOfName(text.charAt(at - 1)) || text.charAt(at - 1) == '-');
  }

  private static boolean beginsLine(String text, int at) {
    return at == 0 || "\n\r\u0085\u2028\u2029".indexOf(text.charAt(at - 1)) >= 0;
  }

  /** Returns true for the first two characters of a word. */
  private static boolean begins(int first, int second) {
    return first == 'p' && second == 'a'
        || first == 't' && second == 'o'
        || first == 's' && second == 'e'
        || first == 'i' && second == 'd';
  }

  /** Values are read after secret names only, as most text has many colons. */
  private String withSign(String text) {
    StringBuilder out = new StringBuilder();
    int copied = 0;
    SignedNames signed = new SignedNames(text);
    while (signed.next()) {
      String name = signed.name();
      if (!names.isSecret(name)) {
        continue;
      }
      int start = start(text, signed.end());
      int end = end(text, start);
      String value = text.substring(start, end);
      boolean isSecret =
          !value.isEmpty()
              && !Placeholders.is(value)
              && !Placeholders.isForm(text, signed.start(), value, end)
              && !NOT_A_VALUE.matcher(value).matches()
              && !name.toLowerCase(Locale.ROOT).endsWith("authorization");
      String now = isSecret ? replacing.of(name, value, Certainty.CERTAIN) : value;
      if (!now.equals(value)) {
        out.append(text, copied, start).append(now);
        copied = end;
        signed.goOnAt(end);
      }
    }
    return copied == 0 ? text : out.append(text, copied, text.length()).toString();
  }

  /** Returns the start of a value: after a tag, and in its quotes. */
  private static int start(String text, int from) {
    int start = endOf(TAG, text, from);
    return start < text.length() && text.charAt(start) == '\''
        ? start + 1
        : endOf(QUOTES, text, start);
  }

  private static int endOf(Pattern prefix, String text, int from) {
    Matcher matcher = prefix.matcher(text).region(from, text.length());
    return matcher.lookingAt() ? matcher.end() : from;
  }

  /** Returns the end of a value that starts here. */
  private static int end(String text, int start) {
    char before = text.charAt(start - 1);
    if (before == '"' || before == '\'') {
      return endOfQuoted(text, start, before);
    }
    int end = start;
    while (end < text.length() && isBare(text.charAt(end), end == start)) {
      end++;
    }
    return start + withoutPunctuation(text.substring(start, end));
  }

  private static boolean isBare(char c, boolean first) {
    return !Character.isWhitespace(c) && (first ? NOT_FIRST_OF_BARE : AFTER_BARE).indexOf(c) < 0;
  }

  private static int endOfQuoted(String text, int start, char quote) {
    int end = start;
    while (end < text.length() && "\r\n".indexOf(text.charAt(end)) < 0) {
      char c = text.charAt(end);
      boolean escape = c == '\\' && quote == '"';
      if (c == quote || escape && text.startsWith("\"", end + 1)) {
        break;
      }
      end += escape ? 2 : 1;
    }
    return Math.min(end, text.length());
  }

  /** Returns the group of the value in a pair: in double or single quotes, or bare. */
  private static int valueGroup(MatchResult found) {
    return found.group(3) != null ? 3 : found.group(4) != null ? 4 : BARE;
  }

  private static String bare(String value, int group) {
    return group == BARE ? value.substring(0, withoutPunctuation(value)) : value;
  }

  /** Returns the text of a match with another value. */
  private static String with(MatchResult found, int group, String bare, String now) {
    String whole = found.group();
    int start = found.start(group) - found.start();
    return whole.substring(0, start) + now + whole.substring(start + bare.length());
  }

  private String withoutSign(MatchResult found) {
    int group = valueGroup(found);
    String value = found.group(group);
    boolean isOption = found.group(1) != null;
    String name = isOption ? found.group(1) : found.group(2);
    if (isOption && !names.isSecret(name) || Placeholders.isIn(value)) {
      return found.group();
    }
    String bare = bare(value, group);
    boolean isWord =
        NOT_A_VALUE.matcher(bare).matches()
            || group == BARE
                && !isOption
                && (bare.length() < 6
                    || !Secret.isMixed(bare)
                    || TECHNICAL.matcher(bare).matches());
    if (isWord || bare.isEmpty()) {
      return found.group();
    }
    String label = isOption ? name : name.contains(" ") ? "password" : name;
    Certainty certainty = isOption ? Certainty.CERTAIN : Certainty.LIKELY;
    return with(found, group, bare, replacing.of(label, bare, certainty));
  }

  private String nextLine(MatchResult found) {
    String name = found.group(2);
    String value = found.group(4);
    boolean isBlock = found.group(3) != null;
    if (value.startsWith("-") && !isBlock) {
      boolean isSecret = names.isSecret(name);
      return isSecret || names.of(name).ofMixed() ? items(name, value, isSecret) : value;
    }
    return names.isSecret(name) && (isBlock || value.indexOf(':') < 0)
        ? replacing.of(name, value, Certainty.CERTAIN)
        : value;
  }

  /** Replaces the items of a list in YAML. */
  private String items(String name, String list, boolean isSecret) {
    return each(
        ITEM,
        list,
        1,
        PairsInText::beginsLine,
        item -> {
          String text = item.group(1);
          boolean isCode = text.length() >= 8 && Secret.isMixed(text);
          return NOT_A_VALUE.matcher(text).matches() || !isSecret && !isCode
              ? text
              : replacing.of(name, text, isSecret ? Certainty.CERTAIN : Certainty.LIKELY);
        });
  }

  private static int withoutPunctuation(String value) {
    int end = value.length();
    while (end > 0 && ",.)]}!".indexOf(value.charAt(end - 1)) >= 0) {
      end--;
    }
    return end;
  }

  /** Changes one match. */
  interface Change {

    String of(MatchResult found);
  }

  /** Where a match may begin. */
  interface Beginning {

    boolean at(String text, int place);
  }

  /**
   * Replaces a group of each match.
   *
   * @param beginning true for all places where one begins: to try the pattern at each character of
   *     a long text would take many times as long
   */
  static String each(Pattern pattern, String text, int group, Beginning beginning, Change change) {
    Matcher matcher = pattern.matcher(text).useTransparentBounds(true).useAnchoringBounds(false);
    StringBuilder out = null;
    int copied = 0;
    int from = 0;
    while (find(matcher, text, from, beginning)) {
      String old = matcher.group(group);
      String now = change.of(matcher);
      if (!now.equals(old)) {
        out = out == null ? new StringBuilder() : out;
        out.append(text, copied, matcher.start(group)).append(now);
        copied = matcher.end(group);
        from = matcher.end();
      } else {
        // The value may be a pair itself: {@code url: token=x}.
        from = Math.max(matcher.start(), matcher.end(2)) + 1;
      }
    }
    return out == null ? text : out.append(text, copied, text.length()).toString();
  }

  private static boolean find(Matcher matcher, String text, int from, Beginning beginning) {
    for (int at = from; at < text.length(); at++) {
      if (beginning.at(text, at) && matcher.region(at, text.length()).lookingAt()) {
        return true;
      }
    }
    return false;
  }
}
