package dev.cachette.internal.cassette;

import dev.cachette.internal.uri.Percent;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.Locale;
import java.util.function.UnaryOperator;

/**
 * What stands for a secret: <code>{{TIDES_KEY}}</code>, or where it stood in another form, {@code
 * {{TIDES_KEY:base64}}}.
 */
final class Marker {

  static final String OPEN = "{{";
  static final String CLOSE = "}}";

  /** The forms that a secret is looked for in, and put back in. */
  enum Form {
    /** As it is. */
    PLAIN(text -> text),
    /** Its bytes in UTF-8, among others that are no text, each read as a character. */
    BYTES(text -> new String(bytes(text), StandardCharsets.ISO_8859_1)),
    /** As in a form, a space is a plus. */
    FORM(Percent::encodeForm),
    /** As in a path. */
    URL(Percent::encodeSegment),
    /** As in a string of JSON. */
    JSON(Marker::json),
    /** As in a string of JSON, the slash escaped, too. */
    JSON_SLASH(text -> json(text).replace("/", "\\/")),
    /** As in XML. */
    XML(Marker::xml),
    /** Base64 (RFC 4648). */
    BASE64(text -> Base64.getEncoder().encodeToString(bytes(text))),
    /** Base64 without padding. */
    BASE64_BARE(text -> Base64.getEncoder().withoutPadding().encodeToString(bytes(text))),
    /** Base64 for URLs. */
    BASE64URL(text -> Base64.getUrlEncoder().encodeToString(bytes(text))),
    /** Base64 for URLs without padding. */
    BASE64URL_BARE(text -> Base64.getUrlEncoder().withoutPadding().encodeToString(bytes(text)));

    private final UnaryOperator<String> encoding;

    Form(UnaryOperator<String> encoding) {
      this.encoding = encoding;
    }

    String of(String secret) {
      return encoding.apply(secret);
    }

    /** As it stands behind the name. */
    String token() {
      return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }
  }

  private Marker() {}

  /** The marker for a secret of this name in this form. */
  static String of(String name, Form form) {
    return form == Form.PLAIN ? OPEN + name + CLOSE : OPEN + name + ":" + form.token() + CLOSE;
  }

  /** A name as a marker can have it. */
  static String name(String of) {
    String name = of.replaceAll("[^A-Za-z0-9_-]", "_");
    return name.isEmpty() ? "secret" : name;
  }

  /** Whether a text is a marker already, with nothing beside it. */
  static boolean is(String text) {
    return text.startsWith(OPEN) && text.endsWith(CLOSE);
  }

  private static String json(String text) {
    StringBuilder escaped = new StringBuilder();
    for (int at = 0; at < text.length(); at++) {
      char c = text.charAt(at);
      switch (c) {
        case '"', '\\' -> escaped.append('\\').append(c);
        case '\n' -> escaped.append("\\n");
        case '\r' -> escaped.append("\\r");
        case '\t' -> escaped.append("\\t");
        default -> escaped.append(c < ' ' ? String.format("\\u%04x", (int) c) : String.valueOf(c));
      }
    }
    return escaped.toString();
  }

  private static String xml(String text) {
    return text.replace("&", "&amp;")
        .replace("<", "&lt;")
        .replace(">", "&gt;")
        .replace("\"", "&quot;")
        .replace("'", "&apos;");
  }

  private static byte[] bytes(String text) {
    return text.getBytes(StandardCharsets.UTF_8);
  }
}
