// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import dev.cachette.cassette.Exchange;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Response;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.text.Escapes;
import dev.cachette.internal.text.Placeholders;
import dev.cachette.internal.uri.Percent;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.Locale;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.UnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The placeholder of a secret: <code>{{TIDES_KEY}}</code>, or for another form of it, {@code
 * {{TIDES_KEY:base64}}}.
 */
final class Placeholder {

  static final String OPEN = Placeholders.OPEN;
  static final String CLOSE = Placeholders.CLOSE;

  /** A placeholder: its name, and its form if it has one. */
  static final Pattern PATTERN = Pattern.compile("\\{\\{([A-Za-z0-9_-]+)(?::([a-z0-9-]+))?\\}\\}");

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

  /** Returns true if a text is a placeholder of this name, in any form. */
  static boolean isOf(String name, String text) {
    Matcher placeholder = PATTERN.matcher(text);
    return placeholder.matches() && placeholder.group(1).equals(name);
  }

  /** Returns the names of the placeholders in the headers and bodies of an exchange. */
  static Set<String> names(Exchange exchange) {
    Set<String> names = new TreeSet<>();
    addNames(exchange.request().headers(), exchange.request().body(), names);
    exchange.response().ifPresent(it -> names.addAll(names(it)));
    return names;
  }

  /** Returns the names of the placeholders in a response. */
  static Set<String> names(Response response) {
    Set<String> names = new TreeSet<>();
    addNames(response.headers(), response.body(), names);
    return names;
  }

  private static void addNames(Headers headers, Body body, Set<String> to) {
    headers.forEach(header -> addNames(header.value(), to));
    if (!body.isEmpty()) {
      addNames(Content.of(headers, body).text(), to);
    }
  }

  private static void addNames(String text, Set<String> to) {
    if (text.contains(OPEN)) {
      PATTERN.matcher(text).results().forEach(it -> to.add(it.group(1)));
    }
  }

  private static byte[] bytes(String text) {
    return text.getBytes(StandardCharsets.UTF_8);
  }
}
