package dev.cachette.internal.secret;

import dev.cachette.internal.scan.BodyType;
import dev.cachette.internal.scan.Value;
import dev.cachette.internal.scan.ValueFormats;
import dev.cachette.internal.secret.Secret.Certainty;
import dev.cachette.internal.text.Placeholders;
import dev.cachette.internal.uri.Percent;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.regex.MatchResult;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Finds secrets in headers, URLs, bodies and other text, and replaces them. Everything else is
 * unchanged, to the character. The same for every outlet: what a file hides, no message prints.
 */
public final class SecretFinder {

  /** The maximum depth of text within text, such as JSON in Base64 in a form. */
  private static final int DEEPEST = 5;

  /** Shorter numbers are counts. */
  private static final int SHORTEST_NUMBER = 4;

  private static final Set<String> SCHEMES =
      Set.of("basic", "bearer", "digest", "negotiate", "dpop", "token", "apikey", "hawk");

  /** A parameter in a URL: of the path, the query, or the fragment. */
  private static final Pattern PARAMETER =
      Pattern.compile("(?<=[?&;#])([\\w.%\\[\\]~-]{1,100})=([^&;#\\s\"'<>]+)");

  /** A name and a value in plain text, YAML, connection strings, or arguments of GraphQL. */
  private static final Pattern PAIR =
      Pattern.compile(
          "(?<![\\w$.%-])(\\\\?[\"'])?([A-Za-z][\\w.-]{0,60}?)(?:\\\\?[\"'])?[ \\t]{0,3}(?::|=>?)["
              + " \\t]{0,3}(?:!!?\\w+[ \\t]+)?(?:\\\\?\"(?:\\\\?\"\\\\?\")?((?:[^\"\\\\\\r"
              + "\\n"
              + "]|\\\\[^\"])++)|'([^'\\r"
              + "\\n"
              + "]++)|([^\\s\"'<>;&{}\\[(][^\\s\"'<>;&]{0,8000}+))");

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

  /** The group of a value without quotes, in pairs with and without a sign. */
  private static final int BARE = 5;

  /** Words, variables, and types in definitions. */
  private static final Pattern NOT_A_VALUE =
      Pattern.compile(
          "(?i)null|true|false|none|nil|undefined|required|optional|missing|invalid|expired|yes|no"
              + "|is|was|must|has|\\*+|\\$.*|<.*|\\|[+-]?|text|password"
              + "|\\[?(?:string|id|int|integer|number|float|boolean)!?\\]?!?");

  /** Values that say that there is no secret. */
  private static final Pattern NO_SECRET =
      Pattern.compile("(?i)null|true|false|none|yes|no|ok|required|optional|\\*+");

  private static final Pattern BASE64 =
      Pattern.compile("[A-Za-z0-9+/]{16,}={0,2}|[A-Za-z0-9_-]{16,}={0,2}");

  private final SecretPolicy policy;
  private final Replacement replacement;

  /** Creates a finder that replaces what a policy calls secret. */
  public SecretFinder(SecretPolicy policy, Replacement replacement) {
    this.policy = policy;
    this.replacement =
        new Replacement() {
          @Override
          public String of(Secret secret) {
            return policy.isAllowed(secret.value()) ? secret.value() : replacement.of(secret);
          }

          @Override
          public void encoded(String text) {
            replacement.encoded(text);
          }
        };
  }

  /** Returns the value of a header. */
  public String header(String name, String value) {
    String lower = name.toLowerCase(Locale.ROOT);
    if (policy.isExcepted(name)) {
      return value;
    }
    if (lower.endsWith("authorization")) {
      return credentials(lower, value);
    }
    if (lower.equals("cookie")) {
      return cookies(value);
    }
    if (lower.equals("set-cookie")) {
      int end = value.indexOf(';');
      return end < 0 ? cookies(value) : cookies(value.substring(0, end)) + value.substring(end);
    }
    if (policy.isSecretHeader(name)) {
      return replaced(name, value, Certainty.CERTAIN);
    }
    return value.isEmpty() ? value : within(value, DEEPEST, false);
  }

  /** Returns a URL, or a part of one. */
  public String url(String url) {
    return text(url);
  }

  /** Returns the value of a query parameter or of a field of a form. */
  public String field(String name, String text) {
    return field(new Value(name, text, Value.Kind.STRING), DEEPEST);
  }

  /** Returns a body. */
  public String body(Optional<String> contentType, String text) {
    BodyType type = contentType.map(BodyType::of).orElse(BodyType.NONE);
    boolean form = type.name().equals("application/x-www-form-urlencoded");
    return ValueFormats.change(
        type, text, value -> form ? field(value, DEEPEST) : value(value, DEEPEST));
  }

  /** Returns any other text. */
  public String text(String text) {
    return text(text, DEEPEST);
  }

  /** Returns one value of this name. */
  public String value(String name, String text) {
    return value(new Value(name, text, Value.Kind.STRING), DEEPEST);
  }

  private String field(Value value, int depth) {
    return policy.isShort(value.name())
        ? replaced(value.name(), value.text(), Certainty.BY_USE)
        : value(value, depth);
  }

  private String value(Value value, int depth) {
    String text = value.text();
    if (value.kind() == Value.Kind.LITERAL || text.isEmpty()) {
      return text;
    }
    String lower = value.name().toLowerCase(Locale.ROOT);
    if (lower.endsWith("authorization") && !policy.isExcepted(lower)) {
      return credentials(lower, text);
    }
    if (policy.isSecret(value.name())) {
      if (value.kind() == Value.Kind.NUMBER && text.length() < SHORTEST_NUMBER
          || NO_SECRET.matcher(text).matches()) {
        return text;
      }
      String now = replaced(value.name(), text, Certainty.CERTAIN);
      return value.kind() == Value.Kind.NUMBER && now.startsWith(Placeholders.OPEN) ? "0" : now;
    }
    if (value.kind() == Value.Kind.NUMBER) {
      String now = isIdentifier(lower) ? text : SecretShapes.replace(text, replacement);
      return now.startsWith(Placeholders.OPEN) ? "0" : now;
    }
    if (policy.isOfRandom(value.name()) && SecretShapes.isLongRandom(text)) {
      return replaced(value.name(), text, Certainty.LIKELY);
    }
    return within(text, depth, isIdentifier(lower));
  }

  /** Returns true for names of identifiers, which may look like the number of a card. */
  private static boolean isIdentifier(String name) {
    return name.endsWith("id") || name.endsWith("number") && !name.contains("card");
  }

  /** Returns a text that may have a format of its own. */
  private String within(String text, int depth, boolean identifier) {
    if (depth == 0 || text.length() < 4) {
      return text;
    }
    if (ValueFormats.hasStructure(text)) {
      // The text as a whole is tried last: a format has the better places.
      return ValueFormats.changeLike(
          text,
          "",
          value ->
              value.text().equals(text)
                  ? text(text, depth - 1)
                  : isForm(text) ? field(value, depth - 1) : value(value, depth - 1));
    }
    String decoded = BASE64.matcher(text).matches() ? base64(text, depth) : text;
    return !decoded.equals(text) ? decoded : identifier ? text : text(text, depth);
  }

  private static boolean isForm(String text) {
    char first = text.strip().charAt(0);
    return first != '{' && first != '[' && first != '<' && first != '"' && first != '-';
  }

  private String base64(String text, int depth) {
    boolean forUrls = text.indexOf('-') >= 0 || text.indexOf('_') >= 0;
    try {
      byte[] bytes = (forUrls ? Base64.getUrlDecoder() : Base64.getDecoder()).decode(text);
      String plain = StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(bytes)).toString();
      if (!isReadable(plain)) {
        return text;
      }
      String now = within(plain, depth - 1, false);
      if (now.equals(plain)) {
        return text;
      }
      replacement.encoded(text);
      Base64.Encoder encoder = forUrls ? Base64.getUrlEncoder() : Base64.getEncoder();
      return (text.endsWith("=") ? encoder : encoder.withoutPadding())
          .encodeToString(now.getBytes(StandardCharsets.UTF_8));
    } catch (IllegalArgumentException | CharacterCodingException other) {
      return text;
    }
  }

  private static boolean isReadable(String text) {
    return text.chars().noneMatch(c -> c < ' ' && c != '\n' && c != '\r' && c != '\t');
  }

  private String text(String text, int depth) {
    if (text.length() < 4) {
      return text;
    }
    String replaced = text;
    if (text.indexOf('=') > 0) {
      replaced = each(PARAMETER, replaced, 2, found -> parameter(found, depth));
    }
    if (text.indexOf('=') > 0 || text.indexOf(':') > 0) {
      replaced = each(PAIR, replaced, 0, this::pair);
    }
    replaced = each(WITHOUT_SIGN, replaced, 0, this::withoutSign);
    if (text.indexOf('\n') > 0) {
      replaced = each(NEXT_LINE, replaced, 4, this::nextLine);
    }
    if (depth > 0 && text.indexOf('%') >= 0) {
      replaced = encoded(replaced, depth);
    }
    return SecretShapes.replace(replaced, replacement);
  }

  private String parameter(MatchResult found, int depth) {
    String name = Percent.decodeForm(found.group(1));
    String raw = found.group(2);
    if (Placeholders.is(raw)) {
      return raw;
    }
    if (policy.isSecretParameter(name)) {
      return replaced(
          name,
          Percent.decodeForm(raw),
          policy.isSecret(name) ? Certainty.CERTAIN : Certainty.BY_USE);
    }
    String value = Percent.decodeForm(raw);
    if (depth == 0 || value.equals(raw) && !BASE64.matcher(raw).matches()) {
      return raw;
    }
    String now = within(value, depth - 1, isIdentifier(name));
    return now.equals(value) ? raw : Placeholders.encodeOutside(now, Percent::encodeSegment);
  }

  /** Replaces secrets in percent-encoded text outside of parameters. */
  private String encoded(String text, int depth) {
    Matcher whole =
        Pattern.compile("[^\\s\"'<>&?#/=;]*%[0-9A-Fa-f]{2}[^\\s\"'<>&?#/;]*").matcher(text);
    return whole.replaceAll(
        found -> {
          String raw = found.group();
          String plain = Percent.decode(raw);
          String now = Placeholders.isIn(raw) ? plain : within(plain, depth - 1, false);
          return Matcher.quoteReplacement(
              now.equals(plain) ? raw : Placeholders.encodeOutside(now, Percent::encodeSegment));
        });
  }

  private String pair(MatchResult found) {
    int group = valueGroup(found);
    String value = found.group(group);
    String name = found.group(2);
    if (!policy.isSecret(name) || Placeholders.is(value)) {
      return found.group();
    }
    String bare = bare(value, group);
    if (bare.isEmpty() || NOT_A_VALUE.matcher(bare).matches()) {
      return found.group();
    }
    String now =
        name.toLowerCase(Locale.ROOT).endsWith("authorization")
            ? bare
            : replaced(name, bare, Certainty.CERTAIN);
    return with(found, group, bare, now);
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
    if (isOption && !policy.isSecret(name) || Placeholders.isIn(value)) {
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
    return with(found, group, bare, replaced(label, bare, certainty));
  }

  private String nextLine(MatchResult found) {
    String value = found.group(4);
    boolean isBlock = found.group(3) != null;
    boolean isNested = value.indexOf(':') >= 0 || value.startsWith("-");
    return policy.isSecret(found.group(2)) && (isBlock || !isNested)
        ? replaced(found.group(2), value, Certainty.CERTAIN)
        : value;
  }

  private static int withoutPunctuation(String value) {
    int end = value.length();
    while (end > 0 && ",.)]}!".indexOf(value.charAt(end - 1)) >= 0) {
      end--;
    }
    return end;
  }

  private interface Change {
    String of(MatchResult found);
  }

  private static String each(Pattern pattern, String text, int group, Change change) {
    Matcher matcher = pattern.matcher(text);
    StringBuilder out = null;
    int copied = 0;
    int from = 0;
    while (from <= text.length() && matcher.find(from)) {
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

  private String credentials(String header, String value) {
    int space = value.indexOf(' ');
    if (space < 0) {
      // A scheme alone is not secret.
      return SCHEMES.contains(value.toLowerCase(Locale.ROOT))
          ? value
          : replaced(header, value, Certainty.CERTAIN);
    }
    String rest = value.substring(space + 1).strip();
    if (value.substring(0, space).equalsIgnoreCase("basic")) {
      learnPassword(rest);
    }
    return value.substring(0, space + 1) + replaced(header, rest, Certainty.CERTAIN);
  }

  /** The password of Basic authentication is reported, though it does not occur as it is. */
  private void learnPassword(String base64) {
    try {
      String pair = new String(Base64.getDecoder().decode(base64), StandardCharsets.UTF_8);
      int colon = pair.indexOf(':');
      if (colon >= 0 && colon < pair.length() - 1) {
        replacement.of(new Secret("password", pair.substring(colon + 1), Certainty.CERTAIN));
      }
    } catch (IllegalArgumentException noBase64) {
      // It has no password that could occur elsewhere.
    }
  }

  private String cookies(String pairs) {
    StringBuilder redacted = new StringBuilder();
    for (String pair : pairs.split(";")) {
      int equals = pair.indexOf('=');
      String name = equals < 0 ? "" : pair.substring(0, equals).strip();
      redacted.append(redacted.isEmpty() ? "" : "; ");
      redacted.append(
          equals < 0 || policy.isExcepted(name)
              ? pair.strip()
              : name
                  + "="
                  + replaced(
                      name,
                      pair.substring(equals + 1).strip(),
                      policy.isSecret(name) ? Certainty.CERTAIN : Certainty.BY_USE));
    }
    return redacted.toString();
  }

  private String replaced(String name, String value, Certainty certainty) {
    return value.isEmpty() || Placeholders.is(value)
        ? value
        : replacement.of(new Secret(name, value, certainty));
  }
}
