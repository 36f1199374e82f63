// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.content;

import dev.cachette.internal.uri.Percent;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The parameters after a header value: {@code ; boundary=x; name="a b"} (RFC 9110 section 5.6.6).
 *
 * @param values unquoted values by name, in lower case
 */
public record Parameters(Map<String, String> values) {

  private static final Pattern PARAMETER =
      Pattern.compile(
          ";\\s*([^=;\\s]+)\\s*=\\s*" + "(?:\"([^\"\\\\]*+(?:\\\\.[^\"\\\\]*+)*+)\"|([^;]*))");

  /** Parses the parameters of a header value. */
  public static Parameters of(String header) {
    Map<String, String> values = new LinkedHashMap<>();
    Matcher matcher = PARAMETER.matcher(header);
    while (matcher.find()) {
      String value =
          matcher.group(2) == null
              ? matcher.group(3).strip()
              : matcher.group(2).replaceAll("\\\\(.)", "$1");
      values.putIfAbsent(matcher.group(1).toLowerCase(Locale.ROOT), value);
    }
    return new Parameters(values);
  }

  /** Returns the value of a parameter; names are not case-sensitive. */
  public Optional<String> named(String name) {
    return Optional.ofNullable(values.get(name.toLowerCase(Locale.ROOT)));
  }

  /** Decodes a value in the extended form of RFC 8187: {@code UTF-8''log%20book.txt}. */
  static String extended(String value) {
    return Percent.decode(value.substring(value.lastIndexOf('\'') + 1));
  }
}
