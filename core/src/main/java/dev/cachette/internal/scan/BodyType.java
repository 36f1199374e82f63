// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.scan;

import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A content type (RFC 9110 section 8.3.1), as far as formats need it.
 *
 * @param name type and subtype in lower case, such as {@code application/json}; empty for none
 * @param header the whole value
 */
public record BodyType(String name, String header) {

  /** No content type. */
  public static final BodyType NONE = new BodyType("", "");

  private static final Pattern BOUNDARY =
      Pattern.compile("(?i);\\s*boundary\\s*=\\s*(?:\"([^\"]+)\"|([^;\\s]+))");

  /** Reads the value of a {@code content-type} header. */
  public static BodyType of(String header) {
    int end = header.indexOf(';');
    String name = (end < 0 ? header : header.substring(0, end)).strip();
    return new BodyType(name.toLowerCase(Locale.ROOT), header);
  }

  /** Returns true for this subtype, or one with it as structured suffix (RFC 6839). */
  public boolean isKindOf(String subtype) {
    return name.endsWith("/" + subtype) || name.endsWith("+" + subtype);
  }

  /** Returns true for the fields of a form that are not in parts. */
  public boolean isForm() {
    return name.equals("application/x-www-form-urlencoded");
  }

  /** Returns the boundary of a multipart type. */
  Optional<String> boundary() {
    Matcher found = BOUNDARY.matcher(header);
    return found.find()
        ? Optional.of(found.group(1) == null ? found.group(2) : found.group(1))
        : Optional.empty();
  }
}
