// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.template;

import dev.cachette.internal.json.JsonQuery;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.text.NameSuggester;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.Period;
import java.time.temporal.TemporalAmount;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * An expression between the braces of a template.
 *
 * @param kind its first word
 * @param argument what follows the dot or the sign; empty if nothing does
 */
record Expression(String kind, String argument) {

  private static final List<String> WITH_NAME =
      List.of("path", "query", "header", "cookie", "form", "json", "counter", "random");
  private static final List<String> ALONE =
      List.of("method", "url", "host", "body", "count", "now", "today");
  private static final Pattern TIME = Pattern.compile("(now|today)([+-])(P.+)");
  static final Pattern RANGE = Pattern.compile("(-?[0-9]{1,18})\\.\\.(-?[0-9]{1,18})");

  /**
   * Parses an expression.
   *
   * @throws IllegalArgumentException if it is unknown; the message suggests one
   */
  static Expression parse(String text) {
    Matcher time = TIME.matcher(text);
    if (time.matches()) {
      amount(text, time.group(3));
      return new Expression(time.group(1), time.group(2) + time.group(3));
    }
    if (ALONE.contains(text)) {
      return new Expression(text, "");
    }
    int dot = text.indexOf('.');
    String kind = dot < 0 ? text : text.substring(0, dot);
    String argument = dot < 0 ? "" : text.substring(dot + 1);
    if (!WITH_NAME.contains(kind) || argument.isEmpty()) {
      throw Refusals.argument(unknown(text, kind));
    }
    if (kind.equals("json")) {
      JsonQuery.parse(argument);
    }
    if (kind.equals("random") && !argument.equals("uuid") && !isRange(argument)) {
      throw Refusals.argument(
          "Incomplete expression ${" + text + "}. Fix: write ${random.uuid} or ${random.1..100}.");
    }
    return new Expression(kind, argument);
  }

  /** Returns the duration to add; empty for none. */
  static TemporalAmount amount(String expression, String iso) {
    try {
      return iso.contains("T") ? Duration.parse(iso) : Period.parse(iso);
    } catch (DateTimeException malformed) {
      throw Refusals.argument(
          "Invalid expression ${"
              + expression
              + "}: "
              + iso
              + " is not an ISO 8601 duration. Fix: write P1D or PT2H.",
          malformed);
    }
  }

  private static boolean isRange(String argument) {
    Matcher range = RANGE.matcher(argument);
    return range.matches() && Long.parseLong(range.group(1)) <= Long.parseLong(range.group(2));
  }

  private static String unknown(String text, String kind) {
    if (WITH_NAME.contains(kind)) {
      return "Incomplete expression ${" + text + "}. Fix: add a name, as ${" + kind + ".name}.";
    }
    List<String> all = new ArrayList<>(WITH_NAME);
    all.addAll(ALONE);
    return NameSuggester.closest(kind, all)
        .map(
            near ->
                "Unknown expression ${%s}. Did you mean ${%s}?"
                    .formatted(text, near + text.substring(kind.length())))
        .orElse(
            "Unknown expression ${"
                + text
                + "}.\nFix: begin it with one of "
                + all
                + ", or write $${"
                + text
                + "} to send it literally.");
  }
}
