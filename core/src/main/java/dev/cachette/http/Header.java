// SPDX-License-Identifier: Apache-2.0
package dev.cachette.http;

import static dev.cachette.http.Tokens.requireToken;

import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.secret.Masking;
import dev.cachette.internal.text.Printable;

/**
 * One header field (RFC 9110 section 5).
 *
 * @param name the field name, as written; names are not case-sensitive
 * @param value the field value, without surrounding white space
 */
public record Header(String name, String value) {

  /** The replacement for secrets in messages. */
  public static final String MASK = Masking.MASK;

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
   * Returns the value of a header with secrets masked, for messages: credentials, cookies, tokens.
   * An authentication scheme alone is not secret.
   */
  public static String masked(String name, String value) {
    return Masking.header(name, value);
  }

  /** Returns the field as {@code name: value}, with secrets masked. */
  @Override
  public String toString() {
    return Printable.of(name + ": " + masked(name, value));
  }
}
