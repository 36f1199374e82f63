// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import java.util.Arrays;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * Fills placeholders with the values of now, each in the form of its place.
 *
 * @param values the values by the names of their placeholders
 */
record PlaceholderValues(Map<String, String> values) {

  private static final Pattern WRAPPED = Pattern.compile("\\{\\{(base64|base64url)=");

  /** Copies them. */
  PlaceholderValues {
    values = Map.copyOf(values);
  }

  /** Returns the text with its placeholders filled, as far as there are values. */
  String fill(String text) {
    if (values.isEmpty() || !text.contains(Placeholder.OPEN)) {
      return text;
    }
    String unwrapped = unwrap(text);
    return Placeholder.PATTERN
        .matcher(unwrapped)
        .replaceAll(
            placeholder ->
                Matcher.quoteReplacement(
                    value(placeholder.group(1), placeholder.group(2)).orElse(placeholder.group())));
  }

  /** Fills a value that was encoded as a whole, and encodes it again. */
  private String unwrap(String text) {
    Matcher wrapped = WRAPPED.matcher(text);
    StringBuilder filled = new StringBuilder();
    int copied = 0;
    while (wrapped.find(copied)) {
      int end = endOf(text, wrapped.end());
      if (end < 0) {
        break;
      }
      filled.append(text, copied, wrapped.start());
      filled.append(wrap(wrapped.group(1), fill(text.substring(wrapped.end(), end))));
      copied = end + Placeholder.CLOSE.length();
    }
    return filled.append(text, copied, text.length()).toString();
  }

  /** Returns the position of the closing braces, with nested ones skipped. */
  private static int endOf(String text, int from) {
    int open = 1;
    for (int at = from; at < text.length(); at++) {
      if (text.startsWith(Placeholder.OPEN, at)) {
        open++;
        at++;
      } else if (text.startsWith(Placeholder.CLOSE, at)) {
        open--;
        if (open == 0) {
          return at;
        }
        at++;
      }
    }
    return -1;
  }

  private static String wrap(String form, String text) {
    return (form.equals("base64") ? Placeholder.Form.BASE64 : Placeholder.Form.BASE64URL).of(text);
  }

  private Optional<String> value(String name, @Nullable String form) {
    // Hosts are in lower case, however they were written.
    return values.entrySet().stream()
        .filter(secret -> secret.getKey().equalsIgnoreCase(name))
        .findFirst()
        .flatMap(
            secret ->
                Arrays.stream(Placeholder.Form.values())
                    .filter(
                        it -> form == null ? it == Placeholder.Form.PLAIN : it.token().equals(form))
                    .findFirst()
                    .map(it -> it.of(secret.getValue())));
  }
}
