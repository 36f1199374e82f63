package dev.cachette.internal.cassette;

import dev.cachette.http.MediaType;
import dev.cachette.internal.text.JsonStrings;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiConsumer;
import java.util.regex.MatchResult;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Replaces secrets at their usual places, and reports their values. */
final class SecretPlaces {

  /** Shorter secrets are not searched for elsewhere. */
  private static final int SHORTEST_SURE = 8;

  /**
   * Nor are shorter values that may not be secret: cookies, or parameters with a name as short as
   * key.
   */
  private static final int SHORTEST_UNSURE = 16;

  private static final Set<String> CREDENTIALS = Set.of("authorization", "proxy-authorization");
  private static final Pattern FIELD = Pattern.compile("(?<=^|[?&;])([^=&?;\\s]+)=([^&;#\\s]+)");
  private static final Pattern ELEMENT =
      Pattern.compile("(<(?:[\\w.-]+:)?([\\w.-]+)(?:\\s[^<>]*)?>)([^<>]+)(?=</)");
  private static final Pattern ATTRIBUTE =
      Pattern.compile("(\\s(?:[\\w.-]+:)?([\\w.-]+)\\s*=\\s*[\"'])([^\"'<>]+)(?=[\"'])");
  private static final Pattern PART =
      Pattern.compile(
          "(;\\s*name=\"?([^\";\\r\\n]+)\"?[^\\r\\n]*\\r\\n(?:[^\\r\\n]+\\r\\n)*\\r\\n)"
              + "(.+?)(?=\\r\\n--)",
          Pattern.DOTALL);

  private final SecretNames names;
  private final BiConsumer<String, String> found;

  /**
   * Creates the rules for these names.
   *
   * @param found receives the name and value of each secret to search for elsewhere
   */
  SecretPlaces(SecretNames names, BiConsumer<String, String> found) {
    this.names = names;
    this.found = found;
  }

  /** Redacts the value of a header. */
  String header(String name, String value) {
    String lower = name.toLowerCase(Locale.ROOT);
    if (names.isSpared(name)) {
      return value;
    }
    if (CREDENTIALS.contains(lower)) {
      return credentials(lower, value);
    }
    if (lower.equals("cookie")) {
      return cookies(value);
    }
    if (lower.equals("set-cookie")) {
      int end = value.indexOf(';');
      return end < 0 ? cookies(value) : cookies(value.substring(0, end)) + value.substring(end);
    }
    if (names.isSecret(name)) {
      return placeholder(name, value);
    }
    return value.indexOf('?') >= 0 ? parameters(value) : value;
  }

  /** Redacts a URL, a query string, or a URL-encoded form. */
  String parameters(String text) {
    return FIELD
        .matcher(text)
        .replaceAll(
            field ->
                Matcher.quoteReplacement(
                    names.isSecretParameter(field.group(1))
                        ? field.group(1) + "=" + placeholder(field.group(1), field.group(2))
                        : field.group()));
  }

  /** Redacts a text body. */
  String body(Optional<MediaType> type, String text) {
    String subtype = type.map(MediaType::subtype).orElse("");
    if (subtype.equals("x-www-form-urlencoded")) {
      return parameters(text);
    }
    if (type.filter(it -> it.type().equals("multipart")).isPresent()) {
      return replaced(PART, text, true);
    }
    if (subtype.equals("xml") || subtype.endsWith("+xml") || subtype.endsWith("html")) {
      return replaced(ATTRIBUTE, replaced(ELEMENT, text, false), false);
    }
    return JsonStrings.changeMembers(
        text, (name, value) -> names.isSecret(name) ? placeholder(name, value) : value);
  }

  private String replaced(Pattern pattern, String text, boolean asParameter) {
    return pattern
        .matcher(text)
        .replaceAll(
            place -> {
              String name = place.group(2);
              boolean secret = asParameter ? names.isSecretParameter(name) : names.isSecret(name);
              return Matcher.quoteReplacement(secret ? redacted(place) : place.group());
            });
  }

  private String redacted(MatchResult place) {
    String behind = place.group().substring(place.end(3) - place.start());
    return place.group(1) + placeholder(place.group(2), place.group(3)) + behind;
  }

  private String credentials(String header, String value) {
    int space = value.indexOf(' ');
    if (space < 0) {
      return placeholder(header, value);
    }
    String rest = value.substring(space + 1).strip();
    if (value.substring(0, space).equalsIgnoreCase("basic")) {
      learnPassword(rest);
    }
    return value.substring(0, space + 1) + placeholder(header, rest);
  }

  private void learnPassword(String base64) {
    try {
      String pair = new String(Base64.getDecoder().decode(base64), StandardCharsets.UTF_8);
      int colon = pair.indexOf(':');
      if (colon >= 0) {
        learn("password", pair.substring(colon + 1));
      }
    } catch (IllegalArgumentException noBase64) {
      // It has no parts to search for elsewhere.
    }
  }

  private String cookies(String pairs) {
    StringBuilder redacted = new StringBuilder();
    for (String pair : pairs.split(";")) {
      int equals = pair.indexOf('=');
      String name = equals < 0 ? "" : pair.substring(0, equals).strip();
      redacted.append(redacted.isEmpty() ? "" : "; ");
      redacted.append(
          equals < 0 || names.isSpared(name)
              ? pair.strip()
              : name + "=" + placeholder(name, pair.substring(equals + 1).strip()));
    }
    return redacted.toString();
  }

  private String placeholder(String name, String value) {
    if (value.isEmpty() || Placeholder.is(value)) {
      return value;
    }
    learn(name, value);
    return Placeholder.of(Placeholder.name(name), Placeholder.Form.PLAIN);
  }

  /** Values are replaced everywhere, so common words are excluded. */
  private void learn(String name, String value) {
    boolean sure = names.isSecret(name) || CREDENTIALS.contains(name);
    boolean isLong = value.length() >= (sure ? SHORTEST_SURE : SHORTEST_UNSURE);
    if (isLong && (sure || isMixed(value))) {
      found.accept(Placeholder.name(name), value);
    }
  }

  private static boolean isMixed(String value) {
    return value.chars().anyMatch(Character::isDigit)
        && value.chars().anyMatch(Character::isLetter);
  }
}
