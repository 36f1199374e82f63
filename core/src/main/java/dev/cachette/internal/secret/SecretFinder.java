// SPDX-License-Identifier: Apache-2.0
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
import java.util.regex.MatchResult;
import java.util.regex.Pattern;

/**
 * Finds secrets in headers, URLs, bodies and other text, and replaces them. Everything else is
 * unchanged, to the character. The same for every outlet: what a file hides, no message prints.
 */
public final class SecretFinder {

  /** The maximum depth of text within text, such as JSON in Base64 in a form. */
  private static final int DEEPEST = 5;

  /** Shorter texts of letters and digits are abbreviations. */
  private static final int SHORTEST_CODE = 8;

  /** Shorter numbers are counts. */
  private static final int SHORTEST_NUMBER = 4;

  /** A parameter in a URL: of the path, the query, or the fragment. */
  private static final Pattern PARAMETER =
      Pattern.compile("(?<=[?&;#])([\\w.%\\[\\]~-]{1,100})=([^&;#\\s\"'<>]+)");

  /** Values that say that there is no secret. */
  private static final Pattern NO_SECRET =
      Pattern.compile("(?i)null|true|false|none|yes|no|ok|required|optional|\\*+");

  private static final Pattern ENCODED = Pattern.compile("%[0-9A-Fa-f]{2}");

  private static final Pattern BASE64 =
      Pattern.compile("[A-Za-z0-9+/]{16,}={0,2}|[A-Za-z0-9_-]{16,}={0,2}");

  private final SecretPolicy policy;
  private final Replacement replacement;
  private final SecretNames names;
  private final PairsInText pairs;
  private final SecretHeaders headers;
  private final CleanTexts cleanHeaders = new CleanTexts();
  private final CleanTexts cleanTexts = new CleanTexts();

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
    this.names = new SecretNames(policy);
    this.pairs = new PairsInText(names, this::replaced);
    this.headers = new SecretHeaders(policy, names, this.replacement);
  }

  /** Returns the value of a header. */
  public String header(String name, String value) {
    return cleanHeaders.change(
        name, value, it -> headers.replace(name, it).orElseGet(() -> within(it, DEEPEST, false)));
  }

  /** Returns a URL, or a part of one. */
  public String url(String url) {
    String plain = Placeholders.unescaped(url);
    String now = text(plain);
    return now.equals(plain) ? url : now;
  }

  /** Returns the value of a query parameter or of a field of a form. */
  public String field(String name, String text) {
    return field(new Value(name, text, Value.Kind.STRING), DEEPEST);
  }

  /** Returns a body. */
  public String body(Optional<String> contentType, String text) {
    BodyType type = contentType.map(BodyType::of).orElse(BodyType.NONE);
    boolean form = type.isForm();
    return ValueFormats.change(
        type, text, value -> form ? field(value, DEEPEST) : value(value, DEEPEST));
  }

  /** Returns any other text. */
  public String text(String text) {
    return cleanTexts.change(text, it -> text(it, DEEPEST));
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
      return headers.credentials(lower, text);
    }
    SecretNames.Name name = names.of(value.name());
    if (name.isSecret()) {
      if (value.kind() == Value.Kind.NUMBER && text.length() < SHORTEST_NUMBER
          || NO_SECRET.matcher(text).matches()) {
        return text;
      }
      String now = replaced(value.name(), text, Certainty.CERTAIN);
      return value.kind() == Value.Kind.NUMBER && now.startsWith(Placeholders.OPEN) ? "0" : now;
    }
    if (value.kind() == Value.Kind.NUMBER) {
      String now = isIdentifier(lower) ? text : SecretShapes.replaceNumber(text, replacement);
      return now.startsWith(Placeholders.OPEN) ? "0" : now;
    }
    if (name.ofRandom() && SecretShapes.isLongRandom(text)) {
      return replaced(value.name(), text, Certainty.LIKELY);
    }
    if (name.ofMixed() && isCode(text)) {
      return replaced(value.name(), text, Certainty.LIKELY);
    }
    return within(text, depth, isIdentifier(lower));
  }

  /** Returns true for a short text that is not a word. */
  private static boolean isCode(String text) {
    return text.length() >= SHORTEST_CODE
        && Secret.isMixed(text)
        && text.chars().noneMatch(Character::isWhitespace);
  }

  /** Returns true for names of identifiers, which may look like the number of a card. */
  private static boolean isIdentifier(String name) {
    return name.endsWith("id")
        || name.endsWith("number") && !name.equals("number") && !name.contains("card");
  }

  /** Returns a text that may have a format of its own. */
  private String within(String text, int depth, boolean identifier) {
    if (depth == 0 || text.length() < 4 || SecretShapes.isProse(text)) {
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
    return text.length() > BinaryRuns.LONG
        ? BinaryRuns.change(text, run -> plainText(run, depth))
        : plainText(text, depth);
  }

  private String plainText(String text, int depth) {
    String replaced = text;
    if (text.indexOf('=') > 0) {
      replaced =
          PairsInText.each(
              PARAMETER,
              replaced,
              2,
              SecretFinder::beginsParameter,
              found -> parameter(found, depth));
    }
    replaced = pairs.replace(replaced);
    if (depth > 0 && text.indexOf('%') >= 0) {
      replaced = encoded(replaced, depth);
    }
    return SecretShapes.replace(replaced, replacement);
  }

  private static boolean beginsParameter(String text, int at) {
    return at > 0 && "?&;#".indexOf(text.charAt(at - 1)) >= 0;
  }

  private String parameter(MatchResult found, int depth) {
    String name = Percent.decodeForm(found.group(1));
    String raw = found.group(2);
    if (Placeholders.is(raw)) {
      return raw;
    }
    if (names.of(name).ofParameter()) {
      return replaced(
          name,
          Percent.decodeForm(raw),
          names.isSecret(name) ? Certainty.CERTAIN : Certainty.BY_USE);
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
    StringBuilder changed = new StringBuilder();
    int copied = 0;
    for (int at = text.indexOf('%'); at >= 0; at = text.indexOf('%', at)) {
      int start = at;
      while (start > copied && !isAround(text.charAt(start - 1), true)) {
        start--;
      }
      boolean isEncoded = ENCODED.matcher(text).region(at, text.length()).lookingAt();
      if (!isEncoded) {
        at++;
        continue;
      }
      while (at < text.length() && !isAround(text.charAt(at), false)) {
        at++;
      }
      String raw = text.substring(start, at);
      String plain = Percent.decode(raw);
      String now = Placeholders.isIn(raw) ? plain : within(plain, depth - 1, false);
      changed.append(text, copied, start);
      changed.append(
          now.equals(plain) ? raw : Placeholders.encodeOutside(now, Percent::encodeSegment));
      copied = at;
    }
    return changed.append(text, copied, text.length()).toString();
  }

  /** Returns true for what is around an encoded text. */
  private static boolean isAround(char c, boolean before) {
    return c == '=' ? before : " \t\n\u000B\f\r\"'<>&?#/;".indexOf(c) >= 0;
  }

  private String replaced(String name, String value, Certainty certainty) {
    return replacement.unlessPlaceholder(new Secret(name, value, certainty));
  }
}
