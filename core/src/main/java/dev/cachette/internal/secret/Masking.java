package dev.cachette.internal.secret;

import java.util.Optional;

/** Masks secrets in whatever a person reads: messages, logs, the control port. */
public final class Masking {

  /** The replacement for secrets. */
  public static final String MASK = "****";

  private static final SecretFinder FINDER = new SecretFinder(SecretPolicy.DEFAULT, secret -> MASK);

  private Masking() {}

  /** Returns the value of a header; an authentication scheme stays. */
  public static String header(String name, String value) {
    return FINDER.header(name, value);
  }

  /** Returns a URL, or a path with its query. */
  public static String url(String url) {
    return FINDER.url(url);
  }

  /** Returns the value of a query parameter or of a field of a form. */
  public static String field(String name, String value) {
    return FINDER.field(name, value);
  }

  /** Returns one value of this name, such as a member of JSON. */
  public static String value(String name, String text) {
    return FINDER.value(name, text);
  }

  /** Returns a body. */
  public static String body(Optional<String> contentType, String text) {
    return FINDER.body(contentType, text);
  }

  /** Returns any other text. */
  public static String text(String text) {
    return FINDER.text(text);
  }
}
