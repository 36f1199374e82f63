// SPDX-License-Identifier: Apache-2.0
package dev.cachette.answer;

import dev.cachette.internal.misuse.Refusals;
import java.util.List;

/** The value of a Set-Cookie header (RFC 6265 section 4.1.1). */
final class SetCookie {

  private SetCookie() {}

  static String of(String name, String value, List<String> attributes) {
    if (name == null || !name.matches("[A-Za-z0-9!#$%&'*+.^_`|~-]+")) {
      throw Refusals.argument(
          "\"" + name + "\" is not a valid cookie name. Fix: use letters, digits, - and _.");
    }
    if (value == null || !value.matches("[\\x21\\x23-\\x2b\\x2d-\\x3a\\x3c-\\x5b\\x5d-\\x7e]*")) {
      throw Refusals.argument(
          String.format(
              "The value of the cookie \"%s\" has a character that is not allowed (RFC 6265). "
                  + "Fix: remove spaces, quotes, commas, semicolons and backslashes.",
              name));
    }
    StringBuilder cookie = new StringBuilder(name).append('=').append(value);
    for (String attribute : attributes) {
      if (attribute == null || attribute.isBlank() || attribute.indexOf(';') >= 0) {
        throw Refusals.argument(
            String.format(
                "\"%s\" is not a cookie attribute. Fix: pass each one separately, as \"Path=/\".",
                attribute));
      }
      cookie.append("; ").append(attribute);
    }
    return cookie.toString();
  }
}
