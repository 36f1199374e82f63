// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases;

import java.time.DateTimeException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.regex.MatchResult;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Finds values that an application generates at each call, by their shape: UUIDs, hashes, and times
 * close to that of the call. A text may have several, such as a URL that ends in a UUID.
 */
final class Shapes {

  private static final Duration CLOSE = Duration.ofDays(1);
  private static final int FEWEST_HASH_DIGITS = 12;

  /** The length of a date, or of seconds. */
  private static final int SHORTEST = 10;

  private static final String TIME = "a time";
  private static final String DATE = "a date";
  private static final Set<String> TIMES = Set.of(TIME, DATE);

  /** One kind of value; {@code name} is what replaces it in a template. */
  private record Shape(String name, Pattern pattern, Test test) {}

  /** Decides about a text that has the form of a shape. */
  private interface Test {
    boolean isOne(String text, Instant now);
  }

  private static final List<Shape> ALL =
      List.of(
          new Shape(
              "a UUID",
              edged("[0-9a-fA-F]{8}(?:-[0-9a-fA-F]{4}){3}-[0-9a-fA-F]{12}"),
              (text, now) -> true),
          new Shape(
              TIME,
              edged(
                  "\\d{4}-\\d\\d-\\d\\d[T ]\\d\\d:\\d\\d(?::\\d\\d(?:\\.\\d{1,9})?)?"
                      + "(?:Z|[+-]\\d\\d:?\\d\\d)?(?:\\[[A-Za-z_/]+\\])?"),
              (text, now) -> isClose(Shapes::dateTime, text, now)),
          new Shape(
              TIME,
              Pattern.compile(
                  "[A-Z][a-z]{2}, \\d\\d [A-Z][a-z]{2} \\d{4} \\d\\d:\\d\\d:\\d\\d GMT"),
              (text, now) ->
                  isClose(
                      it ->
                          ZonedDateTime.parse(it, DateTimeFormatter.RFC_1123_DATE_TIME).toInstant(),
                      text,
                      now)),
          new Shape(
              DATE,
              edged("\\d{4}-\\d\\d-\\d\\d"),
              (text, now) ->
                  isClose(
                      it -> LocalDate.parse(it).atTime(12, 0).toInstant(ZoneOffset.UTC),
                      text,
                      now)),
          new Shape(
              TIME,
              edged("\\d{10}(?:\\.\\d{1,9})?"),
              (text, now) ->
                  isClose(
                      it -> Instant.ofEpochSecond(Long.parseLong(it.substring(0, 10))), text, now)),
          new Shape(
              TIME,
              edged("\\d{13}"),
              (text, now) -> isClose(it -> Instant.ofEpochMilli(Long.parseLong(it)), text, now)),
          new Shape(
              "a ULID",
              edged("[0-7][0-9A-HJKMNP-TV-Z]{25}"),
              (text, now) -> hasDigitsAndLetters(text)),
          new Shape(
              "a hash",
              edged(
                  "(?:[0-9a-f]{"
                      + FEWEST_HASH_DIGITS
                      + ",}|[0-9A-F]{"
                      + FEWEST_HASH_DIGITS
                      + ",})"),
              (text, now) -> hasDigitsAndLetters(text)),
          new Shape(
              "a hash",
              edged("[A-Za-z0-9_-]{43}|[A-Za-z0-9+/]{43}=|[A-Za-z0-9+/]{86}=="),
              (text, now) -> isMixed(text)));

  private static final Pattern DIGITS = edged("[0-9]{" + FEWEST_HASH_DIGITS + ",}");

  private Shapes() {}

  private static Pattern edged(String pattern) {
    return Pattern.compile("(?<![A-Za-z0-9_.-])(?:" + pattern + ")(?![A-Za-z0-9_-])");
  }

  /** Converts a text to a time. */
  private interface Parsing {
    Instant of(String text);
  }

  private static boolean isClose(Parsing parsing, String text, Instant now) {
    try {
      return Duration.between(parsing.of(text), now).abs().compareTo(CLOSE) <= 0;
    } catch (DateTimeException | NumberFormatException other) {
      return false;
    }
  }

  private static Instant dateTime(String text) {
    String iso =
        text.replace(' ', 'T').replaceAll("\\[.*", "").replaceAll("([+-]\\d\\d)(\\d\\d)$", "$1:$2");
    boolean hasZone = iso.endsWith("Z") || iso.matches(".*[+-]\\d\\d:\\d\\d");
    return hasZone
        ? OffsetDateTime.parse(iso).toInstant()
        : LocalDateTime.parse(iso).toInstant(ZoneOffset.UTC);
  }

  private static boolean hasDigitsAndLetters(String text) {
    return text.chars().anyMatch(Character::isDigit) && text.chars().anyMatch(Character::isLetter);
  }

  private static boolean isMixed(String text) {
    return text.chars().anyMatch(Character::isDigit)
        && text.chars().anyMatch(Character::isUpperCase)
        && text.chars().anyMatch(Character::isLowerCase);
  }

  /**
   * Replaces the generated values.
   *
   * @param now when the call was made
   * @param replacement returns what replaces one, which may be itself
   */
  static String replace(String text, Instant now, UnaryOperator<String> replacement) {
    return replace(text, now, (shape, value) -> replacement.apply(value));
  }

  /** As {@link #replace(String, Instant, UnaryOperator)}, but for times, which identify nothing. */
  static String replaceIdentifiers(String text, Instant now, UnaryOperator<String> replacement) {
    return replace(
        text, now, (shape, value) -> TIMES.contains(shape) ? value : replacement.apply(value));
  }

  private interface Replacing {
    String of(String shape, String value);
  }

  private static String replace(String text, Instant now, Replacing replacing) {
    if (text.length() < SHORTEST || text.chars().noneMatch(Character::isDigit)) {
      return text;
    }
    String changed = text;
    for (Shape shape : ALL) {
      changed =
          shape
              .pattern
              .matcher(changed)
              .replaceAll(
                  found -> Matcher.quoteReplacement(replaced(found, shape, now, replacing)));
    }
    return changed;
  }

  private static String replaced(MatchResult found, Shape shape, Instant now, Replacing replacing) {
    String value = found.group();
    return shape.test.isOne(value, now) ? replacing.of(shape.name, value) : value;
  }

  /** Returns the text with the names of shapes instead of the generated values. */
  static String template(String text, Instant now) {
    return replace(text, now, (shape, value) -> "<" + shape + ">");
  }

  /**
   * Returns true if a text has generated values of the same shapes as another one, and is the same
   * otherwise. A hash may be one of digits only, which is not taken for one elsewhere.
   */
  static boolean isLike(String template, String text, Instant now) {
    return template(text, now).equals(template)
        || template(DIGITS.matcher(text).replaceAll("a$0"), now).equals(template);
  }
}
