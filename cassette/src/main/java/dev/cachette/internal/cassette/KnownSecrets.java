// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import dev.cachette.internal.json.Json;
import dev.cachette.internal.secret.SecretShapes;
import dev.cachette.internal.text.JsonStrings;
import dev.cachette.internal.uri.Percent;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Secrets with known values, which are replaced wherever they occur in a text: in one of the known
 * forms, or inside a value that is encoded as a whole, such as a password in Basic credentials.
 */
final class KnownSecrets {

  private static final int SHORTEST_PERCENT = 3;

  /** The maximum depth of nested encodings. */
  private static final int DEEPEST = 3;

  private static final Pattern BASE64 = Pattern.compile("[A-Za-z0-9+/_-]{8,}={0,2}");

  /** The characters of percent-encoded text besides letters and digits (RFC 3986). */
  private static final String OF_PERCENT = "._~+!*'()%-";

  private final List<Variant> variants = new ArrayList<>();

  /** The names of values. */
  private final Map<String, String> names = new LinkedHashMap<>();

  private final Set<String> texts = new HashSet<>();
  private final SecretTraces traces = new SecretTraces();
  private boolean sorted = true;

  /** A secret in one form. */
  private record Variant(String text, String placeholder) {}

  /**
   * Starts with the secrets that the user has named.
   *
   * @param named their values by name
   */
  KnownSecrets(Map<String, String> named) {
    named.forEach((name, value) -> learn(name, value));
  }

  /** Adds a secret value. */
  void learn(String name, String value) {
    if (names.putIfAbsent(value, name) != null) {
      return;
    }
    for (Placeholder.Form form : Placeholder.Form.values()) {
      String text = form.of(value);
      if (texts.add(text)) {
        add(text, Placeholder.of(name, form));
        String lower = lowerEscapes(text);
        if (!lower.equals(text)) {
          add(lower, Placeholder.of(name, form));
        }
      }
    }
    sorted = false;
  }

  /** Adds what others know. */
  void learn(KnownSecrets others) {
    others.names.forEach((value, name) -> learn(name, value));
  }

  private void add(String text, String placeholder) {
    variants.add(new Variant(text, placeholder));
    traces.add(text);
  }

  /** Longer ones come first: a shorter one may be a part of them. */
  private List<Variant> variants() {
    if (!sorted) {
      variants.sort(Comparator.comparingInt(variant -> -variant.text.length()));
      sorted = true;
    }
    return variants;
  }

  boolean isEmpty() {
    return variants.isEmpty();
  }

  /** Returns the number of values. */
  int count() {
    return names.size();
  }

  /** Returns the text with placeholders for secrets. */
  String redact(String text) {
    return variants.isEmpty() ? text : redact(text, DEEPEST);
  }

  private String replaced(String text, boolean hasTrace) {
    String replaced = text;
    for (Variant variant : hasTrace ? variants() : List.<Variant>of()) {
      if (replaced.contains(variant.text)) {
        replaced = replaced.replace(variant.text, variant.placeholder);
      }
    }
    return replaced;
  }

  private String redact(String text, int depth) {
    boolean hasTrace = traces.mayBeIn(text);
    String redacted = replaced(text, hasTrace);
    if (depth == 0) {
      return redacted;
    }
    if (redacted.indexOf('%') >= 0) {
      redacted = percentEncoded(redacted, depth);
    }
    if (redacted.indexOf('\\') >= 0) {
      redacted = JsonStrings.changeAll(redacted, it -> escaped(it, depth).orElse(it));
    }
    return hasTrace || !redacted.equals(text)
        ? within(BASE64, redacted, token -> base64(token, depth))
        : redacted;
  }

  /** Returns a part of a text with secrets redacted; empty if there are none. */
  private interface Within {
    Optional<String> redact(String token);
  }

  private static String within(Pattern pattern, String text, Within change) {
    Matcher tokens = pattern.matcher(text);
    Matcher signed = SecretShapes.SIGNED_TOKEN.matcher(text);
    boolean isAnySigned = signed.find();
    StringBuilder changed = new StringBuilder();
    while (tokens.find()) {
      String token = tokens.group();
      while (isAnySigned && signed.end() <= tokens.start()) {
        isAnySigned = signed.find();
      }
      boolean isPlaceholder =
          tokens.start() >= 2 && text.startsWith(Placeholder.OPEN, tokens.start() - 2);
      // A signed token is redacted as a whole, by its shape.
      boolean isSigned = isAnySigned && signed.start() <= tokens.start();
      String replacement = isPlaceholder || isSigned ? token : change.redact(token).orElse(token);
      tokens.appendReplacement(changed, Matcher.quoteReplacement(replacement));
    }
    return tokens.appendTail(changed).toString();
  }

  /** Searches from sign to sign: a regular expression takes seconds for binary content. */
  private String percentEncoded(String text, int depth) {
    StringBuilder changed = new StringBuilder();
    int copied = 0;
    for (int at = text.indexOf('%'); at >= 0; at = text.indexOf('%', at)) {
      int start = at;
      while (start > copied && isOfPercent(text.charAt(start - 1))) {
        start--;
      }
      while (at < text.length() && isOfPercent(text.charAt(at))) {
        at++;
      }
      boolean isPlaceholder = start >= 2 && text.startsWith(Placeholder.OPEN, start - 2);
      String token = text.substring(start, at);
      if (token.length() >= SHORTEST_PERCENT && !isPlaceholder) {
        changed.append(text, copied, start).append(percent(token, depth).orElse(token));
        copied = at;
      }
    }
    return changed.append(text, copied, text.length()).toString();
  }

  private static boolean isOfPercent(char c) {
    return c >= 'a' && c <= 'z'
        || c >= 'A' && c <= 'Z'
        || c >= '0' && c <= '9'
        || OF_PERCENT.indexOf(c) >= 0;
  }

  private Optional<String> percent(String token, int depth) {
    String plain = Percent.decodeForm(token);
    String redacted = redact(plain, depth - 1);
    return redacted.equals(plain)
        ? Optional.empty()
        : Optional.of(outsidePlaceholders(redacted, Placeholder.Form.URL));
  }

  /** Returns a JSON string, which may contain escapes. */
  private Optional<String> escaped(String literal, int depth) {
    if (literal.indexOf('\\') < 0 || literal.chars().anyMatch(c -> c < ' ')) {
      return Optional.empty();
    }
    try {
      String plain = Json.tree(literal).asText();
      String redacted = redact(plain, depth - 1);
      return redacted.equals(plain)
          ? Optional.empty()
          : Optional.of('"' + outsidePlaceholders(redacted, Placeholder.Form.JSON) + '"');
    } catch (IllegalArgumentException noJson) {
      return Optional.empty();
    }
  }

  private Optional<String> base64(String token, int depth) {
    boolean forUrls = token.indexOf('-') >= 0 || token.indexOf('_') >= 0;
    try {
      byte[] bytes =
          (forUrls ? Base64.getUrlDecoder() : Base64.getDecoder()).decode(unpadded(token));
      String plain = new String(bytes, StandardCharsets.UTF_8);
      String redacted = redact(plain, depth - 1);
      if (redacted.equals(plain)) {
        return Optional.empty();
      }
      boolean isText = Arrays.equals(plain.getBytes(StandardCharsets.UTF_8), bytes);
      return Optional.of(
          Placeholder.OPEN
              + (forUrls ? "base64url=" : "base64=")
              + (isText ? redacted : "-")
              + Placeholder.CLOSE);
    } catch (IllegalArgumentException noBase64) {
      return Optional.empty();
    }
  }

  /** Encodes everything but placeholders; plain placeholders are filled in this form. */
  private static String outsidePlaceholders(String text, Placeholder.Form form) {
    Matcher placeholders = Placeholder.PATTERN.matcher(text);
    StringBuilder encoded = new StringBuilder();
    int from = 0;
    while (placeholders.find()) {
      encoded.append(form.of(text.substring(from, placeholders.start())));
      encoded.append(
          placeholders.group(2) == null
              ? Placeholder.of(placeholders.group(1), form)
              : placeholders.group());
      from = placeholders.end();
    }
    return encoded.append(form.of(text.substring(from))).toString();
  }

  private static String unpadded(String token) {
    int end = token.indexOf('=');
    String bare = end < 0 ? token : token.substring(0, end);
    // A single character is not a secret.
    return bare.length() % 4 == 1 ? bare.substring(0, bare.length() - 1) : bare;
  }

  private static String lowerEscapes(String text) {
    return Pattern.compile("%[0-9A-F]{2}")
        .matcher(text)
        .replaceAll(escape -> escape.group().toLowerCase(Locale.ROOT));
  }
}
