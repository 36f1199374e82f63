// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import dev.cachette.internal.text.Escapes;
import dev.cachette.internal.text.Placeholders;
import dev.cachette.internal.uri.Percent;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.Locale;
import java.util.function.UnaryOperator;

/**
 * The placeholder of a secret: <code>{{TIDES_KEY}}</code>, or for another form of it, {@code
 * {{TIDES_KEY:base64}}}.
 */
final class Placeholder {

  static final String OPEN = Placeholders.OPEN;
  static final String CLOSE = Placeholders.CLOSE;

  /** The forms in which a secret is found and filled in. */
  enum Form {
    /** Unchanged. */
    PLAIN(text -> text),
    /** Its UTF-8 bytes within binary content, each read as a character. */
    BYTES(text -> new String(bytes(text), StandardCharsets.ISO_8859_1)),
    /** Form-encoded: a space is a plus. */
    FORM(Percent::encodeForm),
    /** Percent-encoded, as in a path. */
    URL(Percent::encodeSegment),
    /** Escaped for a JSON string. */
    JSON(Escapes::json),
    /** Escaped for a JSON string, including slashes. */
    JSON_SLASH(text -> Escapes.json(text).replace("/", "\\/")),
    /** Escaped for XML. */
    XML(Escapes::xml),
    /** Base64 (RFC 4648). */
    BASE64(text -> Base64.getEncoder().encodeToString(bytes(text))),
    /** Base64 without padding. */
    BASE64_BARE(text -> Base64.getEncoder().withoutPadding().encodeToString(bytes(text))),
    /** Base64url. */
    BASE64URL(text -> Base64.getUrlEncoder().encodeToString(bytes(text))),
    /** Base64url without padding. */
    BASE64URL_BARE(text -> Base64.getUrlEncoder().withoutPadding().encodeToString(bytes(text)));

    private final UnaryOperator<String> encoding;

    Form(UnaryOperator<String> encoding) {
      this.encoding = encoding;
    }

    String of(String secret) {
      return encoding.apply(secret);
    }

    /** Returns its suffix in placeholders. */
    String token() {
      return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }
  }

  private Placeholder() {}

  /** Returns the placeholder of a secret in this form. */
  static String of(String name, Form form) {
    return form == Form.PLAIN ? OPEN + name + CLOSE : OPEN + name + ":" + form.token() + CLOSE;
  }

  /** Returns a name with the characters that placeholders allow. */
  static String name(String of) {
    String name = of.replaceAll("[^A-Za-z0-9_-]", "_");
    return name.isEmpty() ? "secret" : name;
  }

  private static byte[] bytes(String text) {
    return text.getBytes(StandardCharsets.UTF_8);
  }
}
