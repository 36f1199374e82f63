// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import dev.cachette.http.Body;
import dev.cachette.http.Request;
import dev.cachette.http.Uri;
import dev.cachette.internal.text.Placeholders;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.stream.Collectors;

/**
 * Requests whose placeholders have no form, to compare them: whether a secret is known already when
 * a request is redacted must not matter. An encoded password is <code>{{password:form}}</code> if
 * it is known, and <code>{{password}}</code> if it is found by its name.
 */
public final class PlainForms {

  /** The forms that follow from the place; Base64 is chosen by who sends it. */
  private static final Set<String> OF_PLACES =
      Set.of(
              Placeholder.Form.FORM,
              Placeholder.Form.URL,
              Placeholder.Form.JSON,
              Placeholder.Form.JSON_SLASH,
              Placeholder.Form.XML)
          .stream()
          .map(Placeholder.Form::token)
          .collect(Collectors.toCollection(TreeSet::new));

  private PlainForms() {}

  /** Returns a request without forms in its URL and its body. */
  public static Request of(Request request) {
    Uri uri = of(request.uri());
    String text = request.body().isEmpty() ? "" : request.text();
    String plain = of(text);
    return uri.equals(request.uri()) && plain.equals(text)
        ? request
        : new Request(
            request.method(),
            uri,
            request.headers(),
            plain.equals(text) ? request.body() : Body.of(plain, request.headers().charset()));
  }

  /** Returns a URL without forms. */
  static Uri of(Uri uri) {
    return uri.rawQuery().filter(PlainForms::hasAny).isPresent() || hasAny(uri.path())
        ? new Uri(
            uri.scheme(),
            uri.host(),
            uri.port(),
            of(uri.path()),
            uri.rawQuery().map(PlainForms::of))
        : uri;
  }

  private static boolean hasAny(String text) {
    return text.contains(Placeholders.OPEN) || text.contains("%7");
  }

  private static String of(String text) {
    if (!hasAny(text)) {
      return text;
    }
    return Placeholder.PATTERN
        .matcher(Placeholders.unescaped(text))
        .replaceAll(
            found ->
                Matcher.quoteReplacement(
                    found.group(2) != null && OF_PLACES.contains(found.group(2))
                        ? Placeholder.of(found.group(1), Placeholder.Form.PLAIN)
                        : found.group()));
  }
}
