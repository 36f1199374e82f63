package dev.cachette.http;

import static dev.cachette.http.Tokens.requireToken;

import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.text.Secrets;
import java.util.Arrays;
import java.util.Locale;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * One header field (RFC 9110 section 5).
 *
 * @param name the field name, as written; names are not case-sensitive
 * @param value the field value, without surrounding white space
 */
public record Header(String name, String value) {

  /** The replacement for secrets in messages. */
  public static final String MASK = Secrets.MASK;

  private static final Set<String> CREDENTIALS = Set.of("authorization", "proxy-authorization");
  private static final Set<String> SCHEMES = Set.of("basic", "bearer", "digest", "negotiate");
  private static final Set<String> COOKIES = Set.of("cookie", "set-cookie");
  private static final Set<String> SECRET_PARTS = Set.of("token", "secret", "api-key", "apikey");

  /**
   * Validates both parts.
   *
   * @throws IllegalArgumentException if the name is not a token, or if the value contains a line
   *     break or NUL, which would end the field early
   */
  public Header {
    requireToken("A header name", name);
    if (value == null) {
      throw Refusals.argument("The value of header \"" + name + "\" must not be null.");
    }
    if (value.indexOf('\r') >= 0 || value.indexOf('\n') >= 0 || value.indexOf('\0') >= 0) {
      throw Refusals.argument(
          "The value of header \"" + name + "\" must not contain a line break or NUL.");
    }
    value = value.strip();
  }

  /** Returns true if this field has the given name, ignoring case. */
  public boolean isNamed(String other) {
    return name.equalsIgnoreCase(other);
  }

  /**
   * Returns the value of a header with tokens, credentials and cookie values masked, for messages.
   * An authentication scheme alone is not secret.
   */
  public static String masked(String name, String value) {
    String lower = name.toLowerCase(Locale.ROOT);
    if (CREDENTIALS.contains(lower)) {
      int space = value.indexOf(' ');
      String scheme = space < 0 ? value : value.substring(0, space);
      boolean schemeAlone =
          SCHEMES.contains(scheme.toLowerCase(Locale.ROOT)) && value.strip().equals(scheme);
      return schemeAlone ? value : space < 0 ? MASK : scheme + " " + MASK;
    }
    if (COOKIES.contains(lower)) {
      return lower.equals("cookie") ? maskedPairs(value) : maskedSetCookie(value);
    }
    return SECRET_PARTS.stream().anyMatch(lower::contains) ? MASK : value;
  }

  /**
   * Returns the field as {@code name: value}, with tokens, credentials and cookie values masked.
   */
  @Override
  public String toString() {
    return name + ": " + masked(name, value);
  }

  private static String maskedPairs(String value) {
    return Arrays.stream(value.split(";"))
        .map(pair -> pair.strip().replaceFirst("=.*", "=" + MASK))
        .collect(Collectors.joining("; "));
  }

  private static String maskedSetCookie(String value) {
    int attributes = value.indexOf(';');
    String pair = attributes < 0 ? value : value.substring(0, attributes);
    String rest = attributes < 0 ? "" : value.substring(attributes);
    return pair.replaceFirst("=.*", "=" + MASK) + rest;
  }
}
