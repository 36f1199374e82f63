// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.template;

import dev.cachette.http.Header;
import dev.cachette.http.Response;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.text.NameSuggester;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;

/** Fills the expressions in a text. Filled-in values are not parsed again. */
public final class Template {

  private static final int SHOWN = 30;

  private Template() {}

  /**
   * Checks every expression in a text.
   *
   * @throws IllegalArgumentException if one is unknown or not closed; the message names it
   */
  public static void check(String text) {
    requireClosed(text);
    Substitution.in(
        text,
        key -> {
          Expression.parse(key);
          return Optional.of("");
        });
  }

  private static void requireClosed(String text) {
    for (int at = text.indexOf("${"); at >= 0; at = text.indexOf("${", at + 2)) {
      boolean escaped = at > 0 && text.charAt(at - 1) == '$';
      if (!escaped && text.indexOf('}', at) < 0) {
        String beginning = text.substring(at, Math.min(text.length(), at + SHOWN));
        throw Refusals.argument(
            String.format(
                "The expression that begins with \"%s\" has no closing brace. Fix: close it, or"
                    + " write $%s to send it literally.",
                beginning, beginning));
      }
    }
  }

  /**
   * Checks that the path variables in a response exist.
   *
   * @throws IllegalArgumentException if one does not; the message names it
   */
  public static void requireVariables(Response response, Set<String> variables, String line) {
    Stream.concat(Stream.of(response.text()), response.headers().stream().map(Header::value))
        .forEach(text -> requireVariables(text, variables, line));
  }

  private static void requireVariables(String text, Set<String> variables, String line) {
    Substitution.in(
        text,
        key -> {
          Expression expression = Expression.parse(key);
          if (expression.kind().equals("path") && !variables.contains(expression.argument())) {
            throw Refusals.argument(
                String.format(
                    "Unknown variable ${%s}: the request line \"%s\" has %s.%s",
                    key,
                    line,
                    variables.isEmpty() ? "none" : variables,
                    NameSuggester.closest(expression.argument(), variables)
                        .map(it -> " Did you mean ${path." + it + "}?")
                        .orElse("")));
          }
          return Optional.of("");
        });
  }

  /**
   * Returns the text with every expression filled.
   *
   * @throws IllegalStateException if one has neither a value nor a default
   */
  public static String fill(String text, TemplateValues values, UnaryOperator<String> escape) {
    try {
      return Substitution.in(text, key -> values.of(Expression.parse(key)).map(escape));
    } catch (Substitution.NoValue undefined) {
      throw new IllegalStateException(
          String.format(
              "The template needs ${%s}, but this request has no such value.\n"
                  + "Fix: add a default, ${%s:-...}, or restrict the stub to requests that have"
                  + " it.",
              undefined.getMessage(), undefined.getMessage()),
          undefined);
    }
  }
}
