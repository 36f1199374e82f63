package dev.cachette.internal.render;

import dev.cachette.internal.json.JsonQuery;
import dev.cachette.internal.text.Likeness;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.Period;
import java.time.temporal.TemporalAmount;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * What stands between the braces of a template.
 *
 * @param kind the word it begins with
 * @param argument what stands behind the dot or the sign; empty if nothing does
 */
record Expression(String kind, String argument) {

  private static final List<String> WITH_NAME =
      List.of("path", "query", "header", "cookie", "form", "json", "counter", "random");
  private static final List<String> ALONE =
      List.of("method", "url", "host", "body", "count", "now", "today");
  private static final Pattern TIME = Pattern.compile("(now|today)([+-])(P.+)");
  static final Pattern RANGE = Pattern.compile("(-?[0-9]{1,18})\\.\\.(-?[0-9]{1,18})");

  /**
   * The expression.
   *
   * @throws IllegalArgumentException if it is none; the message says what may have been meant
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
      throw new IllegalArgumentException(unknown(text, kind));
    }
    if (kind.equals("json")) {
      JsonQuery.parse(argument);
    }
    if (kind.equals("random") && !argument.equals("uuid") && !isRange(argument)) {
      throw new IllegalArgumentException(
          "A template has ${" + text + "}. Mend: write ${random.uuid} or ${random.1..100}.");
    }
    return new Expression(kind, argument);
  }

  /** The time to be added, or empty text for none. */
  static TemporalAmount amount(String expression, String iso) {
    try {
      return iso.contains("T") ? Duration.parse(iso) : Period.parse(iso);
    } catch (DateTimeException malformed) {
      throw new IllegalArgumentException(
          "A template has ${"
              + expression
              + "}, where "
              + iso
              + " is no time span. Mend: write one as ISO 8601 does, P1D or PT2H.",
          malformed);
    }
  }

  private static boolean isRange(String argument) {
    Matcher range = RANGE.matcher(argument);
    return range.matches() && Long.parseLong(range.group(1)) <= Long.parseLong(range.group(2));
  }

  private static String unknown(String text, String kind) {
    if (WITH_NAME.contains(kind)) {
      return "A template has ${" + text + "}. Mend: name what is meant, as ${" + kind + ".name}.";
    }
    List<String> all = new ArrayList<>(WITH_NAME);
    all.addAll(ALONE);
    return Likeness.nearest(kind, all)
        .map(near -> "A template has ${" + text + "}. Mend: is ${" + near + "...} meant?")
        .orElse(
            "A template has ${"
                + text
                + "}, which is nothing known.\nMend: begin it with one of "
                + all
                + ", or write $${"
                + text
                + "} to send it as it is.");
  }
}
