package dev.cachette.internal.cassette;

import dev.cachette.internal.json.Json;
import dev.cachette.internal.text.JsonStrings;
import dev.cachette.internal.uri.Percent;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * Secrets whose values are known, and are replaced wherever they stand in a text, in whatever form:
 * those that are written as a whole in one of the forms, and those within something that is encoded
 * as a whole, as a password is in Basic credentials.
 */
final class KnownSecrets {

  /** So deep is looked into what is encoded within something encoded. */
  private static final int DEEPEST = 3;

  private static final Pattern BASE64 = Pattern.compile("[A-Za-z0-9+/_-]{8,}={0,2}");
  private static final Pattern PERCENT = Pattern.compile("[A-Za-z0-9._~+!*'()%-]{3,}");
  private static final Pattern FILLED =
      Pattern.compile("\\{\\{([A-Za-z0-9_-]+)(?::([a-z0-9-]+))?\\}\\}");
  private static final Pattern WRAPPED = Pattern.compile("\\{\\{(base64|base64url)=");

  private final List<Variant> variants = new ArrayList<>();
  private final Set<String> values = new HashSet<>();
  private final Map<String, String> named;

  /** A secret in one form. */
  private record Variant(String text, String marker) {}

  /**
   * The secrets that the user has named.
   *
   * @param named their values by their names
   */
  KnownSecrets(Map<String, String> named) {
    this.named = named;
    named.forEach((name, value) -> learn(name, value));
  }

  /** Takes this value for a secret from now on. */
  void learn(String name, String value) {
    if (!values.add(value)) {
      return;
    }
    for (Marker.Form form : Marker.Form.values()) {
      String text = form.of(value);
      boolean isNew = variants.stream().noneMatch(variant -> variant.text.equals(text));
      if (isNew) {
        variants.add(new Variant(text, Marker.of(name, form)));
      }
      String lower = lowerEscapes(text);
      if (isNew && !lower.equals(text)) {
        variants.add(new Variant(lower, Marker.of(name, form)));
      }
    }
    variants.sort(Comparator.comparingInt(variant -> -variant.text.length()));
  }

  boolean isEmpty() {
    return variants.isEmpty();
  }

  /** The text with markers in place of secrets. */
  String redact(String text) {
    return variants.isEmpty() ? text : redact(text, DEEPEST);
  }

  private String redact(String text, int depth) {
    String redacted = text;
    for (Variant variant : variants) {
      if (redacted.contains(variant.text)) {
        redacted = redacted.replace(variant.text, variant.marker);
      }
    }
    if (depth == 0) {
      return redacted;
    }
    if (redacted.indexOf('%') >= 0) {
      redacted = within(PERCENT, redacted, token -> percent(token, depth));
    }
    if (redacted.indexOf('\\') >= 0) {
      redacted = JsonStrings.changeAll(redacted, it -> escaped(it, depth).orElse(it));
    }
    return within(BASE64, redacted, token -> base64(token, depth));
  }

  /** A part of a text, with secrets taken out; empty if there are none in it. */
  private interface Within {
    Optional<String> redact(String token);
  }

  private static String within(Pattern pattern, String text, Within change) {
    Matcher tokens = pattern.matcher(text);
    StringBuilder changed = new StringBuilder();
    while (tokens.find()) {
      String token = tokens.group();
      boolean isMarker = tokens.start() >= 2 && text.startsWith(Marker.OPEN, tokens.start() - 2);
      String replacement = isMarker ? token : change.redact(token).orElse(token);
      tokens.appendReplacement(changed, Matcher.quoteReplacement(replacement));
    }
    return tokens.appendTail(changed).toString();
  }

  private Optional<String> percent(String token, int depth) {
    if (token.indexOf('%') < 0) {
      return Optional.empty();
    }
    String plain = Percent.decodeForm(token);
    String redacted = redact(plain, depth - 1);
    return redacted.equals(plain)
        ? Optional.empty()
        : Optional.of(outsideMarkers(redacted, Marker.Form.URL));
  }

  /** A string of JSON, with whatever escapes in it. */
  private Optional<String> escaped(String literal, int depth) {
    if (literal.indexOf('\\') < 0) {
      return Optional.empty();
    }
    try {
      String plain = Json.tree(literal).asText();
      String redacted = redact(plain, depth - 1);
      return redacted.equals(plain)
          ? Optional.empty()
          : Optional.of('"' + outsideMarkers(redacted, Marker.Form.JSON) + '"');
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
          Marker.OPEN
              + (forUrls ? "base64url=" : "base64=")
              + (isText ? redacted : "-")
              + Marker.CLOSE);
    } catch (IllegalArgumentException noBase64) {
      return Optional.empty();
    }
  }

  /** Encodes what is no marker; a plain marker is filled in this form then. */
  private static String outsideMarkers(String text, Marker.Form form) {
    Matcher markers = FILLED.matcher(text);
    StringBuilder encoded = new StringBuilder();
    int from = 0;
    while (markers.find()) {
      encoded.append(form.of(text.substring(from, markers.start())));
      encoded.append(
          markers.group(2) == null ? Marker.of(markers.group(1), form) : markers.group());
      from = markers.end();
    }
    return encoded.append(form.of(text.substring(from))).toString();
  }

  /** The text with the values in place of markers, of secrets that the user has named. */
  String fill(String text) {
    if (named.isEmpty() || !text.contains(Marker.OPEN)) {
      return text;
    }
    String unwrapped = unwrap(text);
    return FILLED
        .matcher(unwrapped)
        .replaceAll(
            marker ->
                Matcher.quoteReplacement(
                    value(marker.group(1), marker.group(2)).orElse(marker.group())));
  }

  /** What was encoded as a whole is filled, and encoded again. */
  private String unwrap(String text) {
    Matcher wrapped = WRAPPED.matcher(text);
    StringBuilder filled = new StringBuilder();
    int copied = 0;
    while (wrapped.find(copied)) {
      int end = endOf(text, wrapped.end());
      if (end < 0) {
        break;
      }
      filled.append(text, copied, wrapped.start());
      filled.append(wrap(wrapped.group(1), fill(text.substring(wrapped.end(), end))));
      copied = end + Marker.CLOSE.length();
    }
    return filled.append(text, copied, text.length()).toString();
  }

  /** The place of the braces that close what was opened before, whatever is marked within. */
  private static int endOf(String text, int from) {
    int open = 1;
    for (int at = from; at < text.length(); at++) {
      if (text.startsWith(Marker.OPEN, at)) {
        open++;
        at++;
      } else if (text.startsWith(Marker.CLOSE, at)) {
        open--;
        if (open == 0) {
          return at;
        }
        at++;
      }
    }
    return -1;
  }

  private static String wrap(String form, String text) {
    return (form.equals("base64") ? Marker.Form.BASE64 : Marker.Form.BASE64URL).of(text);
  }

  private Optional<String> value(String name, @Nullable String form) {
    // A host is in lower case, whatever was written there.
    return named.entrySet().stream()
        .filter(secret -> secret.getKey().equalsIgnoreCase(name))
        .findFirst()
        .flatMap(
            secret ->
                Arrays.stream(Marker.Form.values())
                    .filter(it -> form == null ? it == Marker.Form.PLAIN : it.token().equals(form))
                    .findFirst()
                    .map(it -> it.of(secret.getValue())));
  }

  private static String unpadded(String token) {
    int end = token.indexOf('=');
    String bare = end < 0 ? token : token.substring(0, end);
    // One character alone says nothing.
    return bare.length() % 4 == 1 ? bare.substring(0, bare.length() - 1) : bare;
  }

  private static String lowerEscapes(String text) {
    return Pattern.compile("%[0-9A-F]{2}")
        .matcher(text)
        .replaceAll(escape -> escape.group().toLowerCase(Locale.ROOT));
  }
}
