package dev.cachette.match;

import static dev.cachette.match.Arguments.given;
import static dev.cachette.match.Arguments.named;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.NullNode;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.json.JsonComparison;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.match.TextCondition.Kind;
import java.math.BigDecimal;
import java.time.Instant;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.regex.Pattern;
import java.util.regex.PatternSyntaxException;

/**
 * Makes conditions on values, for static import: {@code .header("authorization", startsWith("Bearer
 * "))}, {@code .json("$.vessel.draught", atMost(4.5))}.
 *
 * <p>Every method throws {@link IllegalArgumentException} where it is given null.
 */
public final class Values {

  private Values() {}

  /** Returns this text. */
  public static TextCondition is(String text) {
    return TextCondition.of(Kind.IS, List.of(given("is(text)", text)));
  }

  /** Returns this number, however it is written: 4.20 is 4.2. */
  public static ValueCondition is(Number number) {
    BigDecimal wanted = decimal("is(number)", number);
    return new NumberCondition(
        "the number " + wanted.toPlainString(),
        StubNodes.number(wanted),
        actual -> actual.compareTo(wanted) == 0);
  }

  /** Returns this truth value; outside JSON the text {@code true} or {@code false}. */
  public static ValueCondition is(boolean value) {
    return new PlainCondition(
        Boolean.toString(value),
        Optional.of(StubNodes.flag(value)),
        item -> item.isBoolean() ? item.booleanValue() == value : isText(item, value));
  }

  /** Null, as JSON has it; a missing value is not null. */
  public static ValueCondition isNull() {
    return new PlainCondition("null", Optional.of(NullNode.getInstance()), JsonNode::isNull);
  }

  /**
   * Returns the same JSON, whatever the order of members.
   *
   * @throws IllegalArgumentException if the text is not valid JSON
   */
  public static ValueCondition isJson(String text) {
    JsonNode wanted = Json.read("isJson(text)", given("isJson(text)", text));
    return new PlainCondition(
        wanted.toString(),
        Optional.of(StubNodes.member("json", wanted)),
        item -> JsonComparison.same(wanted).differences(item).isEmpty());
  }

  /** Returns a text that has this in it. */
  public static TextCondition contains(String text) {
    return TextCondition.of(Kind.CONTAINS, List.of(given("contains(text)", text)));
  }

  /** Returns a text that begins like this. */
  public static TextCondition startsWith(String text) {
    return TextCondition.of(Kind.STARTS_WITH, List.of(given("startsWith(text)", text)));
  }

  /** Returns a text that ends like this. */
  public static TextCondition endsWith(String text) {
    return TextCondition.of(Kind.ENDS_WITH, List.of(given("endsWith(text)", text)));
  }

  /**
   * Returns a text that this regular expression matches as a whole.
   *
   * @param regex as {@link Pattern} reads it
   * @throws IllegalArgumentException if it is malformed; the message marks the place
   */
  public static TextCondition pattern(String regex) {
    try {
      return TextCondition.of(Kind.PATTERN, List.of(given("pattern(regex)", regex)));
    } catch (PatternSyntaxException malformed) {
      throw new IllegalArgumentException(
          "pattern(regex) was given no regular expression: "
              + malformed.getMessage().replace("\r\n", "\n"),
          malformed);
    }
  }

  /** One of these texts. */
  public static TextCondition oneOf(String... texts) {
    List<String> all = Arrays.stream(given("oneOf(texts)", texts)).toList();
    all.forEach(text -> given("oneOf(texts)", text));
    if (all.isEmpty()) {
      throw new IllegalArgumentException("oneOf(texts) was given no text.");
    }
    return TextCondition.of(Kind.IS, all);
  }

  /** No value at all. */
  public static ValueCondition missing() {
    return new ManyCondition(
        mask -> Difference.MISSING,
        Optional.of(StubNodes.member("missing", StubNodes.flag(true))),
        Found::isEmpty);
  }

  /** Some value, even an empty one. */
  public static ValueCondition present() {
    return new ManyCondition(
        mask -> "any value",
        Optional.of(StubNodes.member("present", StubNodes.flag(true))),
        found -> !found.isEmpty());
  }

  /**
   * Whatever does not fulfil the condition; a missing value, too, unless that is what is negated.
   */
  public static ValueCondition not(ValueCondition condition) {
    return ManyCondition.not(given("not(condition)", condition));
  }

  /** Anything but this text; missing, too. */
  public static ValueCondition not(String text) {
    return not(is(text));
  }

  /**
   * Returns where there are several values, every one of them fulfils the condition; at least one.
   */
  public static ValueCondition each(ValueCondition condition) {
    return ManyCondition.each(given("each(condition)", condition));
  }

  /** Exactly these texts, in this order: the values of a repeated parameter. */
  public static ValueCondition list(String... texts) {
    List<String> wanted = Arrays.stream(given("list(texts)", texts)).toList();
    wanted.forEach(text -> given("list(texts)", text));
    return new ManyCondition(
        mask -> "exactly " + Found.texts(wanted, mask).shown(),
        Optional.of(StubNodes.member("list", StubNodes.texts(wanted))),
        found -> found.items().equals(Found.texts(wanted).items()));
  }

  /** Returns a number not below this one. */
  public static ValueCondition atLeast(Number least) {
    BigDecimal bound = decimal("atLeast(number)", least);
    return new NumberCondition(
        "a number, at least " + bound.toPlainString(),
        StubNodes.member("atLeast", StubNodes.number(bound)),
        actual -> actual.compareTo(bound) >= 0);
  }

  /** Returns a number not above this one. */
  public static ValueCondition atMost(Number most) {
    BigDecimal bound = decimal("atMost(number)", most);
    return new NumberCondition(
        "a number, at most " + bound.toPlainString(),
        StubNodes.member("atMost", StubNodes.number(bound)),
        actual -> actual.compareTo(bound) <= 0);
  }

  /** Returns a number from this one to that one, both included. */
  public static ValueCondition between(Number least, Number most) {
    BigDecimal low = decimal("between(least, most)", least);
    BigDecimal high = decimal("between(least, most)", most);
    if (low.compareTo(high) > 0) {
      throw new IllegalArgumentException("between(" + low + ", " + high + ") holds for no number.");
    }
    return new NumberCondition(
        "a number from " + low.toPlainString() + " to " + high.toPlainString(),
        StubNodes.member("between", JsonNodeFactory.instance.arrayNode().add(low).add(high)),
        actual -> actual.compareTo(low) >= 0 && actual.compareTo(high) <= 0);
  }

  /**
   * Returns a date-time with an offset (ISO 8601, or as HTTP headers write it) before this instant.
   */
  public static ValueCondition before(Instant instant) {
    given("before(instant)", instant);
    return TimeCondition.instant(
        "an instant before " + instant,
        StubNodes.member("before", StubNodes.text(instant.toString())),
        actual -> actual.isBefore(instant));
  }

  /**
   * Returns a date-time with an offset (ISO 8601, or as HTTP headers write it) after this instant.
   */
  public static ValueCondition after(Instant instant) {
    given("after(instant)", instant);
    return TimeCondition.instant(
        "an instant after " + instant,
        StubNodes.member("after", StubNodes.text(instant.toString())),
        actual -> actual.isAfter(instant));
  }

  /** Returns this instant, whatever offset it is written with. */
  public static ValueCondition is(Instant instant) {
    given("is(instant)", instant);
    return TimeCondition.instant(
        "the instant " + instant,
        StubNodes.member("instant", StubNodes.text(instant.toString())),
        instant::equals);
  }

  /** Returns a date (ISO 8601), or a date-time with a date, before this one. */
  public static ValueCondition before(LocalDate date) {
    given("before(date)", date);
    return TimeCondition.date(
        "a date before " + date,
        StubNodes.member("before", StubNodes.text(date.toString())),
        actual -> actual.isBefore(date));
  }

  /** Returns a date (ISO 8601), or a date-time with a date, after this one. */
  public static ValueCondition after(LocalDate date) {
    given("after(date)", date);
    return TimeCondition.date(
        "a date after " + date,
        StubNodes.member("after", StubNodes.text(date.toString())),
        actual -> actual.isAfter(date));
  }

  /**
   * Returns a text that fulfils a custom predicate.
   *
   * @param name what it asks for, as explanations say it: {@code "a day on which the locks work"}
   */
  public static ValueCondition satisfies(String name, Predicate<String> predicate) {
    given("satisfies(name, predicate)", predicate);
    return new PlainCondition(
        named("satisfies(name, predicate)", name),
        Optional.empty(),
        item -> predicate.test(item.asText()));
  }

  private static boolean isText(JsonNode item, boolean value) {
    return item.isTextual() && item.textValue().equals(Boolean.toString(value));
  }

  private static BigDecimal decimal(String what, Number number) {
    try {
      return new BigDecimal(given(what, number).toString());
    } catch (NumberFormatException notFinite) {
      throw new IllegalArgumentException(
          what + " was given " + number + ", which JSON cannot hold.");
    }
  }
}
