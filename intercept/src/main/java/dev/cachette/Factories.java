// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.match.TextCondition;
import dev.cachette.match.ValueCondition;
import dev.cachette.match.Values;
import java.time.Instant;
import java.time.LocalDate;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;

/**
 * Creates answers, faults, values and conditions, all with one static import: {@code import static
 * dev.cachette.Factories.*;}
 *
 * <pre>{@code
 * net.stub("POST https://berths.example/v1/bookings")
 *     .header("authorization", startsWith("Bearer "))
 *     .body(containsJson(Map.of("day", "2031-04-02")))
 *     .answer(status(503), connectionReset(), json(booking).status(201));
 * }</pre>
 *
 * <p>It has the methods of {@link dev.cachette.answer.Answers}, {@link dev.cachette.answer.Faults},
 * {@link dev.cachette.match.Values}, {@link dev.cachette.match.Bodies} and {@link
 * dev.cachette.match.Conditions}, which describe them in full.
 */
public final class Factories extends ConditionFactories {

  private Factories() {}

  /**
   * Matches this string exactly.
   *
   * @see Values#is(String)
   */
  public static TextCondition is(String text) {
    return Values.is(text);
  }

  /**
   * Matches this value.
   *
   * @see Values#is(Object)
   */
  public static ValueCondition is(@Nullable Object value) {
    return Values.is(value);
  }

  /**
   * Matches JSON null; a missing value is not null.
   *
   * @see Values#isNull()
   */
  public static ValueCondition isNull() {
    return Values.isNull();
  }

  /**
   * Matches the same JSON, with members in any order.
   *
   * @see Values#isJson(String)
   */
  public static ValueCondition isJson(String text) {
    return Values.isJson(text);
  }

  /**
   * Matches strings that contain this text.
   *
   * @see Values#contains(String)
   */
  public static TextCondition contains(String text) {
    return Values.contains(text);
  }

  /**
   * Matches strings that start with this text.
   *
   * @see Values#startsWith(String)
   */
  public static TextCondition startsWith(String text) {
    return Values.startsWith(text);
  }

  /**
   * Matches strings that end with this text.
   *
   * @see Values#endsWith(String)
   */
  public static TextCondition endsWith(String text) {
    return Values.endsWith(text);
  }

  /**
   * Matches strings that match a regular expression as a whole.
   *
   * @see Values#pattern(String)
   */
  public static TextCondition pattern(String regex) {
    return Values.pattern(regex);
  }

  /**
   * Matches any of these strings.
   *
   * @see Values#oneOf(String...)
   */
  public static TextCondition oneOf(String... texts) {
    return Values.oneOf(texts);
  }

  /**
   * Matches if there is no value.
   *
   * @see Values#missing()
   */
  public static ValueCondition missing() {
    return Values.missing();
  }

  /**
   * Matches any value, even an empty one.
   *
   * @see Values#present()
   */
  public static ValueCondition present() {
    return Values.present();
  }

  /**
   * Matches if the condition does not hold; also a missing value, unless the condition is on that.
   *
   * @see Values#not(ValueCondition)
   */
  public static ValueCondition not(ValueCondition condition) {
    return Values.not(condition);
  }

  /**
   * Matches anything but this value, see {@link Values#is(Object)}; also a missing value.
   *
   * @see Values#not(Object)
   */
  public static ValueCondition not(@Nullable Object value) {
    return Values.not(value);
  }

  /**
   * Matches if every value meets the condition, and there is at least one.
   *
   * @see Values#each(ValueCondition)
   */
  public static ValueCondition each(ValueCondition condition) {
    return Values.each(condition);
  }

  /**
   * Matches exactly these values, in this order: of a repeated parameter or header, or the elements
   * of a JSON array.
   *
   * @see Values#list(Object...)
   */
  public static ValueCondition list(@Nullable Object... values) {
    return Values.list(values);
  }

  /**
   * Matches exactly these values, in any order: of a repeated parameter or header, or the elements
   * of a JSON array.
   *
   * @see Values#inAnyOrder(Object...)
   */
  public static ValueCondition inAnyOrder(@Nullable Object... values) {
    return Values.inAnyOrder(values);
  }

  /**
   * Matches this number of values: of a repeated parameter or header, or the elements of a JSON
   * array.
   *
   * @see Values#size(int)
   */
  public static ValueCondition size(int size) {
    return Values.size(size);
  }

  /**
   * Matches a number of values that meets a condition: {@code size(atLeast(2))}.
   *
   * @see Values#size(ValueCondition)
   */
  public static ValueCondition size(ValueCondition condition) {
    return Values.size(condition);
  }

  /**
   * Matches text of this number of characters (Unicode code points).
   *
   * @see Values#length(int)
   */
  public static ValueCondition length(int length) {
    return Values.length(length);
  }

  /**
   * Matches text whose number of characters meets a condition: {@code length(atMost(35))}.
   *
   * @see Values#length(ValueCondition)
   */
  public static ValueCondition length(ValueCondition condition) {
    return Values.length(condition);
  }

  /**
   * Matches numbers that are greater than or equal to this one.
   *
   * @see Values#atLeast(Number)
   */
  public static ValueCondition atLeast(Number least) {
    return Values.atLeast(least);
  }

  /**
   * Matches numbers that are less than or equal to this one.
   *
   * @see Values#atMost(Number)
   */
  public static ValueCondition atMost(Number most) {
    return Values.atMost(most);
  }

  /**
   * Matches numbers in a range, both ends included.
   *
   * @see Values#between(Number, Number)
   */
  public static ValueCondition between(Number least, Number most) {
    return Values.between(least, most);
  }

  /**
   * Matches date-times with an offset (ISO 8601, or the format of HTTP headers) before this
   * instant.
   *
   * @see Values#before(Instant)
   */
  public static ValueCondition before(Instant instant) {
    return Values.before(instant);
  }

  /**
   * Matches date-times with an offset (ISO 8601, or the format of HTTP headers) after this instant.
   *
   * @see Values#after(Instant)
   */
  public static ValueCondition after(Instant instant) {
    return Values.after(instant);
  }

  /**
   * Matches dates (ISO 8601), and date-times by their date, before this one.
   *
   * @see Values#before(LocalDate)
   */
  public static ValueCondition before(LocalDate date) {
    return Values.before(date);
  }

  /**
   * Matches dates (ISO 8601), and date-times by their date, after this one.
   *
   * @see Values#after(LocalDate)
   */
  public static ValueCondition after(LocalDate date) {
    return Values.after(date);
  }

  /**
   * Matches strings by a predicate.
   *
   * @see Values#satisfies(String, Predicate)
   */
  public static ValueCondition satisfies(String name, Predicate<String> predicate) {
    return Values.satisfies(name, predicate);
  }
}
