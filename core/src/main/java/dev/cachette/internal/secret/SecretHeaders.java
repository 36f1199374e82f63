// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.secret;

import dev.cachette.internal.secret.Secret.Certainty;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/** Finds secrets in headers that have a syntax of their own. */
final class SecretHeaders {

  private static final Set<String> SCHEMES =
      Set.of("basic", "bearer", "digest", "negotiate", "dpop", "token", "apikey", "hawk");

  private final SecretPolicy policy;
  private final SecretNames names;
  private final Replacement replacement;

  SecretHeaders(SecretPolicy policy, SecretNames names, Replacement replacement) {
    this.policy = policy;
    this.names = names;
    this.replacement = replacement;
  }

  /** Returns the value of a header; empty if its name says nothing. */
  Optional<String> replace(String name, String value) {
    String lower = name.toLowerCase(Locale.ROOT);
    SecretNames.Header header = names.ofHeader(name);
    if (header.isExcepted()) {
      return Optional.of(value);
    }
    if (lower.endsWith("authorization")) {
      return Optional.of(credentials(lower, value));
    }
    if (lower.equals("cookie")) {
      return Optional.of(cookies(value));
    }
    if (lower.equals("set-cookie")) {
      int end = value.indexOf(';');
      return Optional.of(
          end < 0 ? cookies(value) : cookies(value.substring(0, end)) + value.substring(end));
    }
    return header.isSecret()
        ? Optional.of(replaced(name, value, Certainty.CERTAIN))
        : Optional.empty();
  }

  /** Returns a scheme with its credentials (RFC 9110 section 11.4). */
  String credentials(String header, String value) {
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
    return replacement.unlessPlaceholder(new Secret(name, value, certainty));
  }
}
