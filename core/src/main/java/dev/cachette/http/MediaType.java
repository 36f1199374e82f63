// SPDX-License-Identifier: Apache-2.0
package dev.cachette.http;

import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Optional;

/**
 * A media type (RFC 9110 section 8.3.1), as far as it determines how a body is read.
 *
 * @param type the part before the slash, in lower case
 * @param subtype the part after the slash, in lower case
 * @param charset the charset parameter, if it is given and supported
 */
public record MediaType(String type, String subtype, Optional<Charset> charset) {

  /** Returns the media type that a content-type header names; empty if it is malformed. */
  public static Optional<MediaType> read(String contentType) {
    String[] parts = contentType.split(";");
    String[] names = parts[0].strip().toLowerCase(Locale.ROOT).split("/", -1);
    if (names.length != 2 || names[0].isEmpty() || names[1].isEmpty()) {
      return Optional.empty();
    }
    Optional<Charset> charset = Optional.empty();
    for (int at = 1; at < parts.length && charset.isEmpty(); at++) {
      charset = charsetOf(parts[at].strip());
    }
    return Optional.of(new MediaType(names[0], names[1], charset));
  }

  /** Returns the charset of a body of this type: the given one, or UTF-8. */
  public Charset charsetOrDefault() {
    return charset.orElse(StandardCharsets.UTF_8);
  }

  private static Optional<Charset> charsetOf(String parameter) {
    if (!parameter.toLowerCase(Locale.ROOT).startsWith("charset=")) {
      return Optional.empty();
    }
    String name = parameter.substring("charset=".length()).replace("\"", "").strip();
    try {
      return Optional.of(Charset.forName(name));
    } catch (IllegalArgumentException unknown) {
      return Optional.empty();
    }
  }

  /** Returns the type as in a header. */
  @Override
  public String toString() {
    return type + "/" + subtype + charset.map(c -> "; charset=" + c.name()).orElse("");
  }
}
