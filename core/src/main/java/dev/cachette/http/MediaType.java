package dev.cachette.http;

import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Optional;

/**
 * A media type (RFC 9110 section 8.3.1), as far as it decides how a body is read.
 *
 * @param type the part before the slash, in lower case
 * @param subtype the part behind the slash, in lower case
 * @param charset the charset parameter, if it is given and this JVM knows it
 */
public record MediaType(String type, String subtype, Optional<Charset> charset) {

  /** The media type that a content-type header names; empty if it is malformed. */
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

  /** Whether this is JSON: {@code application/json} or a type that ends in {@code +json}. */
  public boolean isJson() {
    return subtype.equals("json") || subtype.endsWith("+json");
  }

  /** Whether a body of this type can be shown to a person as text. */
  public boolean isText() {
    return type.equals("text")
        || isJson()
        || subtype.equals("xml")
        || subtype.endsWith("+xml")
        || subtype.equals("x-www-form-urlencoded")
        || subtype.equals("javascript")
        || subtype.equals("graphql")
        || subtype.equals("yaml");
  }

  /** The charset that a body of this type is read with: the one given, else UTF-8. */
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

  /** The type as a header would name it. */
  @Override
  public String toString() {
    return type + "/" + subtype + charset.map(c -> "; charset=" + c.name()).orElse("");
  }
}
