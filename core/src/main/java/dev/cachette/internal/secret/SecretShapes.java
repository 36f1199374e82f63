// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.secret;

import dev.cachette.internal.secret.Secret.Certainty;
import dev.cachette.internal.text.Placeholders;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Values that are secret by their shape, wherever they are. */
public final class SecretShapes {

  private static final double RANDOM_ENTROPY = 3.5;

  private static final int LONGEST_SCHEME = 31;

  /** No token is shorter. */
  private static final int SHORTEST_RUN = 12;

  /** The digits of a card number. */
  private static final int SHORTEST_CARD = 14;

  /**
   * A shape: group 1, if there is one, is the secret.
   *
   * @param marks one of these is in each text that has the shape
   * @param anchors one of these is close behind the beginning of each; none if that is not known
   * @param lead an anchor is at most so many characters behind the beginning
   */
  private record Shape(
      String name,
      List<MarkedText.Mark> marks,
      List<String> anchors,
      int lead,
      Pattern pattern,
      Certainty certainty,
      Predicate<String> also) {

    /** Returns it with an anchor further behind its beginning. */
    Shape behind(String anchor, int distance) {
      return new Shape(name, marks, List.of(anchor), distance, pattern, certainty, also);
    }

    /** Returns it without anchors: its marks can be anywhere in it. */
    Shape anywhere() {
      return new Shape(name, marks, List.of(), 0, pattern, certainty, also);
    }

    boolean mayBeIn(MarkedText text) {
      for (MarkedText.Mark mark : marks) {
        if (text.has(mark)) {
          return true;
        }
      }
      return marks.isEmpty();
    }
  }

  private static final Pattern AUTHORIZATION = Pattern.compile("(?i)authorization");

  /** A token that is signed, or encrypted (RFC 7515, RFC 7516). */
  public static final Pattern SIGNED_TOKEN =
      Pattern.compile("\\beyJ[A-Za-z0-9_-]{6,}\\.[A-Za-z0-9_-]{6,}(?:\\.[A-Za-z0-9_-]*){1,3}");

  private static final String TOKEN = "[A-Za-z0-9_-]";

  private static final Shape CARD =
      shape(
          "card-number",
          "",
          "(?<![0-9A-Za-z.,_+-])([2-6][0-9]{3}(?:([ -]?)[0-9]{4}\\2[0-9]{4}\\2[0-9]{4}|(["
              + " -]?)[0-9]{6}\\3[0-9]{4,5}))(?![0-9A-Za-z_+=-]|[.,][0-9])",
          SecretShapes::isCard);

  private static final List<Shape> SHAPES =
      List.of(
          shape(
              "private-key",
              "-----begin",
              "-----BEGIN (?:[A-Z0-9 ]{0,30})PRIVATE KEY(?: BLOCK)?-----"
                  + "(?:[\\s\\S]{0,8000}?-----END [A-Z0-9 ]{0,30}PRIVATE KEY(?: BLOCK)?-----"
                  + "|(?:\\\\[rn]|[A-Za-z0-9+/=\\s])*+)"),
          shape("jwt", "eyj", SIGNED_TOKEN.pattern()),
          shape("cloud-key", "akia asia aroa aida", "\\b(?:AKIA|ASIA|AROA|AIDA)[0-9A-Z]{16}\\b"),
          shape("cloud-key", "aiza", "\\bAIza[0-9A-Za-z_-]{30,}"),
          shape("access-token", "ya29.", "\\bya29\\.[0-9A-Za-z_-]{20,}"),
          shape("access-token", "ghp_ gho_ ghu_ ghs_ ghr_", "\\bgh[pousr]_[A-Za-z0-9]{30,}"),
          shape("access-token", "github_pat_", "\\bgithub_pat_[A-Za-z0-9_]{30,}"),
          shape("access-token", "gl", "\\bgl[a-z]{2,5}-[A-Za-z0-9_-]{18,}"),
          shape(
              "access-token",
              "xox xapp-",
              "\\bxox[a-z]-[A-Za-z0-9-]{10,}|\\bxapp-[A-Za-z0-9-]{10,}"),
          shape("secret-key", "k_", "\\b[srp]k_(?:live|test|prod|active)_[A-Za-z0-9]{12,}")
              .behind("k_", 1),
          shape("secret-key", "sk-", "\\bsk-(?:[a-z]{2,12}-)*[A-Za-z0-9_-]{20,}"),
          shape("secret-key", "sec_", "\\b(?:wh|mg|rg)sec_[A-Za-z0-9+/=]{16,}").behind("sec_", 2),
          shape(
              "access-token",
              "hf_ npm_ dop_v1_ doo_v1_ shpat_ shpss_ shpca_ pul_ lin_api_ ntn_ secret_ figd_ dapi_"
                  + " pat_ key_ rnd_ phc_ phx_ sbp_ tok_ glsa_ hvs_ hvb_ gsk_ sntrys_"
                  + " sntryu_ r8_",
              "\\b(?:hf|npm|dop_v1|doo_v1|shpat|shpss|shpca|pul|lin_api|ntn|secret|figd|dapi|pat"
                  + "|key|rnd|phc|phx|sbp|tok|glsa|hvs|hvb|gsk|sntrys|sntryu|r8)"
                  + "_[A-Za-z0-9_+/=]{24,}"),
          shape(
              "access-token",
              "nvapi- pplx- xai- tskey-",
              "\\b(?:nvapi|pplx|xai|tskey)-[A-Za-z0-9_-]{20,}"),
          shape("access-token", "hvs. hvb.", "\\bhv[sb]\\.[A-Za-z0-9_-]{20,}"),
          shape("access-token", "pypi-", "\\bpypi-[A-Za-z0-9_-]{20,}"),
          shape("access-token", "sg.", "\\bSG\\.[A-Za-z0-9_-]{16,}\\.[A-Za-z0-9_-]{16,}"),
          shape("access-token", "key-", "\\bkey-[0-9a-f]{32}\\b"),
          shape("access-token", ".local.", "\\bv[0-9]\\.local\\.[A-Za-z0-9_-]{20,}")
              .behind(".local.", 2),
          shape("access-token", ".public.", "\\bv[0-9]\\.public\\.[A-Za-z0-9_-]{20,}")
              .behind(".public.", 2),
          shape("secret-key", "gocspx-", "\\bGOCSPX-[A-Za-z0-9_-]{20,}"),
          shape("secret-key", "age-secret-key-", "\\bAGE-SECRET-KEY-1[0-9A-Z]{40,}"),
          shape("secret-key", "pmak- nrak- hrku-", "\\b(?:PMAK|NRAK|HRKU)-[A-Za-z0-9-]{24,}"),
          shape(
              "secret-key",
              "ltai",
              "\\bLTAI[A-Za-z0-9]{12,24}\\b",
              SecretShapes::hasDigitOrMixedCase),
          shape("secret-key", "sk", "\\bSK[0-9a-f]{32}\\b"),
          shape("secret-key", "-us", "\\b[0-9a-f]{32}-us[0-9]{1,2}\\b").behind("-us", 32),
          shape("secret-key", "xkeysib-", "\\bxkeysib-[0-9a-f]{40,}-[A-Za-z0-9]{10,}"),
          shape("access-token", "dapi", "\\bdapi[0-9a-f]{32}\\b"),
          shape("access-token", "dckr_", "\\bdckr_[a-z]{3}_[A-Za-z0-9_-]{20,}"),
          shape("access-token", "atatt", "\\bATATT[A-Za-z0-9_=-]{24,}"),
          shape("access-token", "sq0", "\\bsq0[a-z]{3}-[A-Za-z0-9_-]{20,}"),
          shape(
              "access-token",
              "dp.",
              "\\bdp\\.[a-z]{2,6}\\.(?:[a-z0-9_-]{1,35}\\.)?[A-Za-z0-9]{24,}"),
          shape("path-token", "private-", "\\bprivate-[0-9a-f]{24,}\\b"),
          shape("bot-token", ":", "(?<![0-9])[0-9]{6,12}:[A-Za-z0-9_-]{30,}").anywhere(),
          shape(
                  "bot-token",
                  ".",
                  "\\b[MNO][A-Za-z0-9_-]{23,27}\\.[A-Za-z0-9_-]{6}\\.[A-Za-z0-9_-]{27,}")
              .anywhere(),
          shape(
              "credentials",
              "bearer basic token",
              "(?i)\\b(?:bearer|basic|token)\\s+([A-Za-z0-9._~+/=-]{16,})",
              SecretShapes::hasDigitOrMixedCase),
          // In a header within a text, however short.
          shape(
              "credentials",
              "authorization",
              "(?i)\\bauthorization[\"']?\\s{0,3}[:=]\\s{0,3}[\"']?(?:basic|bearer|token|apikey)"
                  + " +([^\\s\"',;]{3,})"),
          // User information in a URL (RFC 3986 section 3.2.1).
          shape(
                  "url-password",
                  "@",
                  "\\b[a-zA-Z][a-zA-Z0-9+.-]{1,30}://[^\\s/?#@:\"'<>]*:([^\\s/?#@\"'<>]+)@"
                      + "(?![^\\s/?#@\"'<>]*@)")
              .behind("://", LONGEST_SCHEME),
          // With characters that should be encoded, but not a port and a path.
          shape(
                  "url-password",
                  "@",
                  "\\b[a-zA-Z][a-zA-Z0-9+.-]{1,30}://[^\\s/?#@:\"'<>]*:(?![0-9]{1,5}[/?#])"
                      + "([^\\s\"'<>]{1,200})@(?=[\\w.-]+(?::[0-9]+)?(?:[/?#\\s\"'<>]|$))")
              .behind("://", LONGEST_SCHEME),
          shape(
                  "url-password",
                  "@",
                  "(?<![\\w:/])//[^\\s/?#@:\"'<>]{1,100}:([^\\s/?#@\"'<>]+)@[\\w.-]+")
              .behind("//", 0),
          shape(
              "url-password",
              "jdbc:oracle:",
              "jdbc:oracle:\\w{1,10}:[^/\\s\"'@]{1,100}/([^\\s\"'@]+)@"),
          // A user in the arguments of a program.
          shape(
              "password",
              "-u --user",
              "(?<![\\w-])(?:-u|--user)[ =]{1,3}[\"']?[^\\s:\"'/]+:([^\\s\"']{3,})"),
          shape(
                  "url-token",
                  "@",
                  "\\b[a-zA-Z][a-zA-Z0-9+.-]{1,30}://([^\\s/?#@:\"'<>]{12,})@",
                  SecretShapes::hasDigitOrMixedCase)
              .behind("://", LONGEST_SCHEME),
          // What follows such a word in a path.
          shape(
              "path-token",
              "/reset /password /invit /verif /confirm /magic /activat /unsubscribe",
              "(?i)/(?:reset|reset-password|password-reset|passwords?|invites?|invitations?|verify"
                  + "|verification|confirm|confirmation|magic|magic-link|activate|activation"
                  + "|unsubscribe)/("
                  + TOKEN
                  + "{16,})(?=[/?#\\s\"'<>]|$)",
              SecretShapes::hasDigitOrMixedCase),
          shape(
              "path-token",
              "/hook /webhook /token /secret /share /api /key /auth /feed /private /calendar /ical",
              "(?i)/(?:hooks?|webhooks?|tokens?|secrets?|share|api|(?:api[_-]?)?keys?|auth|feeds?"
                  + "|private|calendars?|ical)/("
                  + TOKEN
                  + "{16,})(?=[/?#\\s\"'<>]|$)",
              SecretShapes::isRandom),
          shape(
              "path-token",
              "/services/",
              "/services/[A-Z0-9]{6,14}/[A-Z0-9]{6,14}/(" + TOKEN + "{16,})(?=[/?#\\s\"'<>]|$)"),
          CARD);

  /** A word, and a value close after it. */
  private static final Shape NEXT_TO_WORD =
      new Shape(
          "secret",
          MarkedText.marks("key", "token", "secret", "passw", "credential", "signature"),
          List.of("key", "token", "secret", "passw", "credential", "signature"),
          0,
          Pattern.compile(
              "(?i)(?<![a-z])(?:key|token|secret|password|passwd|credential|signature)s?(?![a-z])"
                  + "[^\\r\\n]{0,24}?(?<![A-Za-z0-9+/_=.{-])([A-Za-z0-9+/_-]{20,}={0,2})"),
          Certainty.LIKELY,
          SecretShapes::isRandom);

  private SecretShapes() {}

  private static Shape shape(String name, String marks, String pattern) {
    return shape(name, marks, pattern, text -> true);
  }

  private static Shape shape(String name, String marks, String pattern, Predicate<String> also) {
    String[] each = marks.isEmpty() ? new String[0] : marks.split(" ");
    return new Shape(
        name,
        MarkedText.marks(each),
        List.of(each),
        0,
        Pattern.compile(pattern),
        Certainty.CERTAIN,
        also);
  }

  /** Returns the text with the secrets in it replaced. */
  static String replace(String text, Replacement replacement) {
    if (!mayHave(text)) {
      return text;
    }
    // What replaces a secret has no marks of others.
    MarkedText before = new MarkedText(text);
    MarkedText now = before;
    for (Shape shape : SHAPES) {
      if (shape.mayBeIn(before)) {
        now = now.with(replaced(shape, now, replacement));
      }
    }
    return NEXT_TO_WORD.mayBeIn(before) ? replaced(NEXT_TO_WORD, now, replacement) : now.text();
  }

  /** Returns a number of JSON, with the number of a payment card replaced. */
  static String replaceNumber(String number, Replacement replacement) {
    boolean isLong = number.length() >= SHORTEST_CARD;
    return isLong && number.indexOf('.') < 0
        ? replaced(CARD, new MarkedText(number), replacement)
        : number;
  }

  /**
   * Returns false for text that no shape can match, as most values are: each shape needs a long run
   * of the characters of tokens, many digits, or one of a few marks.
   */
  private static boolean mayHave(String text) {
    int run = 0;
    int digits = 0;
    for (int at = 0; at < text.length(); at++) {
      char c = text.charAt(at);
      boolean isDigit = c >= '0' && c <= '9';
      digits += isDigit ? 1 : 0;
      run = isDigit || isOfToken(c) ? run + 1 : 0;
      if (c == '@' || run == SHORTEST_RUN || digits == SHORTEST_CARD) {
        return true;
      }
    }
    return text.contains("-----") || text.contains("-u") || AUTHORIZATION.matcher(text).find();
  }

  /**
   * Returns true for words and numbers, as most values are: nothing in them can be a secret, have a
   * format, or follow a name.
   */
  static boolean isProse(String text) {
    int run = 0;
    int digits = 0;
    boolean spaced = false;
    for (int at = 0; at < text.length(); at++) {
      char c = text.charAt(at);
      boolean isDigit = c >= '0' && c <= '9';
      boolean isLetter = c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z';
      digits += isDigit ? 1 : 0;
      spaced |= c == ' ';
      run = c == ' ' ? 0 : run + 1;
      boolean isOther = !isDigit && !isLetter && c != ' ' && c != '.' && c != ',';
      if (isOther || run == SHORTEST_RUN || digits == SHORTEST_CARD) {
        return false;
      }
    }
    return !spaced || !PairsInText.hasWord(text);
  }

  private static boolean isOfToken(char c) {
    return c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z' || "_+/=.~-:".indexOf(c) >= 0;
  }

  private static String replaced(Shape shape, MarkedText marked, Replacement replacement) {
    String text = marked.text();
    Matcher matcher = shape.pattern.matcher(text);
    AnchoredSearch search = new AnchoredSearch(matcher, marked, shape.anchors, shape.lead);
    StringBuilder out = null;
    int copied = 0;
    while (search.find()) {
      int group = matcher.groupCount() > 0 && matcher.group(1) != null ? 1 : 0;
      String value = matcher.group(group);
      boolean isReplaced = Placeholders.isIn(value) || isMask(value);
      if (!isReplaced && shape.also.test(value)) {
        String now = replacement.of(new Secret(shape.name, value, shape.certainty));
        if (!now.equals(value)) {
          out = out == null ? new StringBuilder() : out;
          out.append(text, copied, matcher.start(group)).append(now);
          copied = matcher.end(group);
        }
      }
    }
    return out == null ? text : out.append(text, copied, text.length()).toString();
  }

  private static boolean isMask(String text) {
    return text.chars().allMatch(c -> c == '*');
  }

  /** Returns true for a random text without spaces that is as long as a key. */
  static boolean isLongRandom(String text) {
    return text.matches("[A-Za-z0-9+/_-]{20,200}={0,2}") && isRandom(text);
  }

  /** Returns true for text that is too mixed for a word, a hash, a date or a name. */
  static boolean isRandom(String text) {
    int digits = 0;
    int lower = 0;
    int upper = 0;
    int changes = 0;
    int before = -1;
    for (int at = 0; at < text.length(); at++) {
      char c = text.charAt(at);
      int kind = c >= '0' && c <= '9' ? 0 : c >= 'a' && c <= 'z' ? 1 : c >= 'A' && c <= 'Z' ? 2 : 3;
      digits += kind == 0 ? 1 : 0;
      lower += kind == 1 ? 1 : 0;
      upper += kind == 2 ? 1 : 0;
      changes += before >= 0 && kind != before ? 1 : 0;
      before = kind;
    }
    return digits > 1
        && lower > 1
        && upper > 1
        && changes * 3 >= text.length()
        && entropy(text) >= RANDOM_ENTROPY;
  }

  private static boolean hasDigitOrMixedCase(String text) {
    return text.chars().anyMatch(Character::isDigit)
        || text.chars().anyMatch(Character::isUpperCase)
            && text.chars().anyMatch(Character::isLowerCase);
  }

  /** Returns the entropy in bits per character. */
  private static double entropy(String text) {
    Map<Character, Integer> counts = new HashMap<>();
    for (char c : text.toCharArray()) {
      counts.merge(c, 1, Integer::sum);
    }
    double entropy = 0;
    for (int count : counts.values()) {
      double share = (double) count / text.length();
      entropy -= share * Math.log(share) / Math.log(2);
    }
    return entropy;
  }

  /** Returns true for a number of a payment card, by its check digit (ISO/IEC 7812, Luhn). */
  static boolean isCard(String text) {
    String digits = text.replaceAll("[ -]", "");
    boolean known =
        switch (digits.length()) {
          case 14 -> digits.matches("3(?:0[0-5]|[68]).*");
          case 15 -> digits.matches("3[47].*");
          case 16 ->
              digits.matches(
                  "4.*|5[1-5].*|2(?:22[1-9]|2[3-9]|[3-6]|7[01]|720).*|6(?:011|2|5).*"
                      + "|35(?:2[89]|[3-8]).*");
          default -> false;
        };
    int sum = 0;
    for (int at = 0; at < digits.length(); at++) {
      int digit = digits.charAt(digits.length() - 1 - at) - '0';
      int counted = at % 2 == 0 ? digit : digit * 2;
      sum += counted > 9 ? counted - 9 : counted;
    }
    return known && sum % 10 == 0;
  }
}
