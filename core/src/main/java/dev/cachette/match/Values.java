// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import static dev.cachette.match.Arguments.given;
import static dev.cachette.match.Arguments.named;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.NullNode;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.json.JsonComparison;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.match.TextCondition.Kind;
import dev.cachette.result.Difference;
import java.math.BigDecimal;
import java.time.Instant;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.regex.Pattern;
import java.util.regex.PatternSyntaxException;
import org.jspecify.annotations.Nullable;

/**
 * Creates conditions on values, for static import: {@code .header("authorization",
 * startsWith("Bearer "))}, {@code .json("$.vessel.draught", atMost(4.5))}.
 *
 * <p>Every method throws {@link IllegalArgumentException} if an argument is null, unless stated
 * otherwise.
 */
public final class Values {

  private Values() {}

  /** Matches this string exactly. */
  public static TextCondition is(String text) {
    return TextCondition.of(Kind.IS, List.of(text(text)));
  }

  /**
   * Matches this value:
   *
   * <ul>
   *   <li>a number, however it is written: 4.20 is 4.2;
   *   <li>a boolean; outside JSON, the text {@code true} or {@code false};
   *   <li>an {@link Instant}, {@code OffsetDateTime} or {@code ZonedDateTime}: the same instant,
   *       whatever its offset;
   *   <li>another date or time, an enum constant, a UUID and so on: as Jackson writes it;
   *   <li>a map, collection, array, record or bean: the same JSON, with members in any order;
   *   <li>null: JSON null; a missing value is not null.
   * </ul>
   *
   * A {@link ValueCondition} is returned unchanged.
   *
   * @throws IllegalArgumentException if Jackson cannot write the value
   */
  public static ValueCondition is(@Nullable Object value) {
    return PlainValue.condition("is(value)", value);
  }

  /** Matches JSON null; a missing value is not null. */
  public static ValueCondition isNull() {
    return new PlainCondition("null", Optional.of(NullNode.getInstance()), JsonNode::isNull);
  }

  /**
   * Matches the same JSON, with members in any order.
   *
   * @throws IllegalArgumentException if the text is not valid JSON
   */
  public static ValueCondition isJson(String text) {
    return isJson(Json.read("isJson(text)", given("isJson(text)", text)));
  }

  static ValueCondition isJson(JsonNode wanted) {
    return new PlainCondition(
        wanted.toString(),
        Optional.of(StubNodes.member("json", wanted)),
        item -> JsonComparison.same(wanted).differences(item).isEmpty());
  }

  /** Matches strings that contain this text. */
  public static TextCondition contains(String text) {
    return TextCondition.of(Kind.CONTAINS, List.of(given("contains(text)", text)));
  }

  /** Matches strings that start with this text. */
  public static TextCondition startsWith(String text) {
    return TextCondition.of(Kind.STARTS_WITH, List.of(given("startsWith(text)", text)));
  }

  /** Matches strings that end with this text. */
  public static TextCondition endsWith(String text) {
    return TextCondition.of(Kind.ENDS_WITH, List.of(given("endsWith(text)", text)));
  }

  /**
   * Matches strings that match a regular expression as a whole.
   *
   * @param regex a regular expression of {@link Pattern}
   * @throws IllegalArgumentException if it is malformed; the message marks the place
   */
  public static TextCondition pattern(String regex) {
    try {
      return TextCondition.of(Kind.PATTERN, List.of(given("pattern(regex)", regex)));
    } catch (PatternSyntaxException malformed) {
      throw Refusals.argument(
          "pattern(regex) was given a malformed regular expression: "
              + malformed.getMessage().replace("\r\n", "\n"),
          malformed);
    }
  }

  /** Matches any of these strings. */
  public static TextCondition oneOf(String... texts) {
    List<String> all = Arrays.stream(given("oneOf(texts)", texts)).toList();
    all.forEach(text -> given("oneOf(texts)", text));
    if (all.isEmpty()) {
      throw Refusals.argument("oneOf(texts) needs at least one text.");
    }
    return TextCondition.of(Kind.IS, all);
  }

  /** Matches if there is no value. */
  public static ValueCondition missing() {
    return new ManyCondition(
        mask -> Difference.MISSING,
        Optional.of(StubNodes.member("missing", StubNodes.flag(true))),
        Found::isEmpty);
  }

  /** Matches any value, even an empty one. */
  public static ValueCondition present() {
    return new ManyCondition(
        mask -> "any value",
        Optional.of(StubNodes.member("present", StubNodes.flag(true))),
        found -> !found.isEmpty());
  }

  /**
   * Matches if the condition does not hold; also a missing value, unless the condition is on that.
   */
  public static ValueCondition not(ValueCondition condition) {
    return ManyCondition.not(given("not(condition)", condition));
  }

  /** Matches anything but this value, see {@link #is(Object)}; also a missing value. */
  public static ValueCondition not(@Nullable Object value) {
    return ManyCondition.not(PlainValue.condition("not(value)", value));
  }

  /** Matches if every value meets the condition, and there is at least one. */
  public static ValueCondition each(ValueCondition condition) {
    return ManyCondition.each(given("each(condition)", condition));
  }

  /**
   * Matches exactly these values, in this order: of a repeated parameter or header, or the elements
   * of a JSON array.
   *
   * @param values plain values as for {@link #is(Object)}, or conditions
   */
  public static ValueCondition list(@Nullable Object... values) {
    return ListCondition.inOrder(PlainValue.conditions("list(values)", values));
  }

  /**
   * Matches exactly these values, in any order: of a repeated parameter or header, or the elements
   * of a JSON array.
   *
   * @param values plain values as for {@link #is(Object)}, or conditions
   */
  public static ValueCondition inAnyOrder(@Nullable Object... values) {
    return ListCondition.inAnyOrder(PlainValue.conditions("inAnyOrder(values)", values));
  }

  /**
   * Matches this number of values: of a repeated parameter or header, or the elements of a JSON
   * array.
   *
   * @throws IllegalArgumentException if the number is negative
   */
  public static ValueCondition size(int size) {
    if (size < 0) {
      throw Refusals.argument("size(size) must not be negative: " + size + ".");
    }
    return size(is(size));
  }

  /** Matches a number of values that meets a condition: {@code size(atLeast(2))}. */
  public static ValueCondition size(ValueCondition condition) {
    return Measures.size(given("size(condition)", condition));
  }

  /**
   * Matches text of this number of characters (Unicode code points).
   *
   * @throws IllegalArgumentException if the number is negative
   */
  public static ValueCondition length(int length) {
    if (length < 0) {
      throw Refusals.argument("length(length) must not be negative: " + length + ".");
    }
    return length(is(length));
  }

  /** Matches text whose number of characters meets a condition: {@code length(atMost(35))}. */
  public static ValueCondition length(ValueCondition condition) {
    return Measures.length(given("length(condition)", condition));
  }

  /** Matches numbers that are greater than or equal to this one. */
  public static ValueCondition atLeast(Number least) {
    BigDecimal bound = decimal("atLeast(number)", least);
    return new NumberCondition(
        "a number, at least " + bound.toPlainString(),
        StubNodes.member("atLeast", StubNodes.number(bound)),
        actual -> actual.compareTo(bound) >= 0);
  }

  /** Matches numbers that are less than or equal to this one. */
  public static ValueCondition atMost(Number most) {
    BigDecimal bound = decimal("atMost(number)", most);
    return new NumberCondition(
        "a number, at most " + bound.toPlainString(),
        StubNodes.member("atMost", StubNodes.number(bound)),
        actual -> actual.compareTo(bound) <= 0);
  }

  /** Matches numbers in a range, both ends included. */
  public static ValueCondition between(Number least, Number most) {
    BigDecimal low = decimal("between(least, most)", least);
    BigDecimal high = decimal("between(least, most)", most);
    if (low.compareTo(high) > 0) {
      throw Refusals.argument(
          "between(" + low + ", " + high + ") matches no number. Fix: give the smaller one first.");
    }
    return new NumberCondition(
        "a number from " + low.toPlainString() + " to " + high.toPlainString(),
        StubNodes.member("between", JsonNodeFactory.instance.arrayNode().add(low).add(high)),
        actual -> actual.compareTo(low) >= 0 && actual.compareTo(high) <= 0);
  }

  /**
   * Matches date-times with an offset (ISO 8601, or the format of HTTP headers) before this
   * instant.
   */
  public static ValueCondition before(Instant instant) {
    given("before(instant)", instant);
    return TimeCondition.instant(
        "an instant before " + instant,
        StubNodes.member("before", StubNodes.text(instant.toString())),
        actual -> actual.isBefore(instant));
  }

  /**
   * Matches date-times with an offset (ISO 8601, or the format of HTTP headers) after this instant.
   */
  public static ValueCondition after(Instant instant) {
    given("after(instant)", instant);
    return TimeCondition.instant(
        "an instant after " + instant,
        StubNodes.member("after", StubNodes.text(instant.toString())),
        actual -> actual.isAfter(instant));
  }

  /** Matches date-times at this instant, whatever their offset. */
  static ValueCondition sameInstant(Instant instant) {
    return TimeCondition.instant(
        "the instant " + instant,
        StubNodes.member("instant", StubNodes.text(instant.toString())),
        instant::equals);
  }

  /** Matches dates (ISO 8601), and date-times by their date, before this one. */
  public static ValueCondition before(LocalDate date) {
    given("before(date)", date);
    return TimeCondition.date(
        "a date before " + date,
        StubNodes.member("before", StubNodes.text(date.toString())),
        actual -> actual.isBefore(date));
  }

  /** Matches dates (ISO 8601), and date-times by their date, after this one. */
  public static ValueCondition after(LocalDate date) {
    given("after(date)", date);
    return TimeCondition.date(
        "a date after " + date,
        StubNodes.member("after", StubNodes.text(date.toString())),
        actual -> actual.isAfter(date));
  }

  /**
   * Matches strings by a predicate.
   *
   * @param name the requirement in explanations: {@code "a day on which the locks are open"}
   */
  public static ValueCondition satisfies(String name, Predicate<String> predicate) {
    given("satisfies(name, predicate)", predicate);
    return new PlainCondition(
        named("satisfies(name, predicate)", name),
        Optional.empty(),
        item -> predicate.test(item.asText()));
  }

  private static String text(@Nullable String text) {
    if (text == null) {
      throw Refusals.argument("is(text) was given null. Fix: isNull() or missing().");
    }
    return text;
  }

  static BigDecimal decimal(String what, Number number) {
    try {
      return new BigDecimal(given(what, number).toString());
    } catch (NumberFormatException notFinite) {
      throw Refusals.argument(what + " was given " + number + ", which JSON cannot hold.");
    }
  }
}
