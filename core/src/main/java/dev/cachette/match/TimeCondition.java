// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.result.Difference;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.time.format.DateTimeFormatter;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;

/**
 * A condition on a value as a date or a point in time.
 *
 * @param <T> the type that text is parsed as
 */
final class TimeCondition<T> extends ValueCondition {

  private final String words;
  private final JsonNode written;
  private final String kind;
  private final Function<String, Optional<T>> reading;
  private final Predicate<T> range;

  private TimeCondition(
      String words,
      JsonNode written,
      String kind,
      Function<String, Optional<T>> reading,
      Predicate<T> range) {
    this.words = words;
    this.written = written;
    this.kind = kind;
    this.reading = reading;
    this.range = range;
  }

  static TimeCondition<Instant> instant(String words, JsonNode written, Predicate<Instant> range) {
    return new TimeCondition<>(
        words, written, "not an instant with date, time and offset", TimeCondition::instant, range);
  }

  static TimeCondition<LocalDate> date(String words, JsonNode written, Predicate<LocalDate> range) {
    return new TimeCondition<>(words, written, "not a date", TimeCondition::date, range);
  }

  @Override
  Optional<JsonNode> written() {
    return Optional.of(written);
  }

  @Override
  boolean holds(Found found) {
    return found.items().stream()
        .filter(JsonNode::isTextual)
        .anyMatch(item -> reading.apply(item.textValue()).filter(range).isPresent());
  }

  @Override
  String describe(UnaryOperator<String> mask) {
    return words;
  }

  @Override
  Optional<Remark> remark(JsonNode item, boolean typed) {
    if (!item.isTextual()) {
      return Remark.of(item, "a string", Difference.Kind.TYPE);
    }
    return reading.apply(item.textValue()).isPresent()
        ? Optional.empty()
        : Optional.of(new Remark(kind, Difference.Kind.TYPE));
  }

  /** Parses ISO 8601 with an offset, or the date of an HTTP header (RFC 9110 section 5.6.7). */
  private static Optional<Instant> instant(String text) {
    return Stream.of(DateTimeFormatter.ISO_OFFSET_DATE_TIME, DateTimeFormatter.RFC_1123_DATE_TIME)
        .flatMap(format -> parsed(() -> OffsetDateTime.parse(text, format).toInstant()).stream())
        .findFirst();
  }

  /** Parses a date, or the date of a date-time as it is written. */
  private static Optional<LocalDate> date(String text) {
    int time = text.indexOf('T');
    return parsed(() -> LocalDate.parse(time < 0 ? text : text.substring(0, time)));
  }

  private static <T> Optional<T> parsed(Supplier<T> parser) {
    try {
      return Optional.of(parser.get());
    } catch (DateTimeException malformed) {
      return Optional.empty();
    }
  }
}
