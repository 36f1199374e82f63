// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

import dev.cachette.http.Request;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The preferences of a request (RFC 7240): {@code Prefer: code=404} a status, {@code Prefer:
 * example=none} an example by its name.
 *
 * @param status the status
 * @param example the name of the example
 */
record Preference(OptionalInt status, Optional<String> example) {

  private static final Pattern TOKEN =
      Pattern.compile("(?i)(?:^|[,;])\\s*(code|example)\\s*=\\s*(?:\"([^\"]*)\"|([^\\s,;]+))");

  static Preference of(Request request) {
    OptionalInt status = OptionalInt.empty();
    Optional<String> example = Optional.empty();
    Matcher tokens = TOKEN.matcher(String.join(", ", request.headers().all("prefer")));
    while (tokens.find()) {
      String value = tokens.group(2) == null ? tokens.group(3) : tokens.group(2);
      if (tokens.group(1).equalsIgnoreCase("example")) {
        example = Optional.of(value);
      } else if (value.matches("[2-5]\\d\\d")) {
        status = OptionalInt.of(Integer.parseInt(value));
      }
    }
    return new Preference(status, example);
  }
}
