// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.http.Request;
import dev.cachette.match.Bodies;
import dev.cachette.match.BodyCondition;
import dev.cachette.match.Condition;
import dev.cachette.match.Conditions;
import dev.cachette.match.GraphQlCondition;
import dev.cachette.match.JsonBody;
import dev.cachette.match.PartCondition;
import dev.cachette.match.SoapCondition;
import dev.cachette.match.ValueCondition;
import java.util.Map;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;

/** The part of {@link Factories} that creates conditions on requests and bodies. */
abstract class ConditionFactories extends AnswerFactories {

  ConditionFactories() {}

  /**
   * Matches bodies whose text meets a condition.
   *
   * @see Bodies#textBody(ValueCondition)
   */
  public static BodyCondition textBody(ValueCondition value) {
    return Bodies.textBody(value);
  }

  /**
   * Matches bodies with exactly this text.
   *
   * @see Bodies#sameText(String)
   */
  public static BodyCondition sameText(String text) {
    return Bodies.sameText(text);
  }

  /**
   * Matches bodies with exactly these bytes.
   *
   * @see Bodies#sameBytes(byte[])
   */
  public static BodyCondition sameBytes(byte[] bytes) {
    return Bodies.sameBytes(bytes);
  }

  /**
   * Matches the same JSON, with members in any order.
   *
   * @see Bodies#sameJson(String)
   */
  public static JsonBody sameJson(String text) {
    return Bodies.sameJson(text);
  }

  /**
   * Matches the JSON that Jackson writes for this object, as {@link
   * dev.cachette.answer.Answers#json(Object)} does.
   *
   * @see Bodies#sameJson(Object)
   */
  public static JsonBody sameJson(Object value) {
    return Bodies.sameJson(value);
  }

  /**
   * Matches JSON with these members and values, and possibly others.
   *
   * @see Bodies#containsJson(String)
   */
  public static JsonBody containsJson(String text) {
    return Bodies.containsJson(text);
  }

  /**
   * Matches JSON with the members that Jackson writes for this object, and possibly others.
   *
   * @see Bodies#containsJson(Object)
   */
  public static JsonBody containsJson(Object value) {
    return Bodies.containsJson(value);
  }

  /**
   * Matches JSON with a value that meets a condition.
   *
   * @see Bodies#jsonAt(String, ValueCondition)
   */
  public static BodyCondition jsonAt(String path, ValueCondition value) {
    return Bodies.jsonAt(path, value);
  }

  /**
   * Matches JSON with this value at a place.
   *
   * @see Bodies#jsonAt(String, Object)
   */
  public static BodyCondition jsonAt(String path, @Nullable Object value) {
    return Bodies.jsonAt(path, value);
  }

  /**
   * Matches JSON that is valid against a JSON Schema, by default of the dialect 2020-12.
   *
   * @see Bodies#jsonSchema(String)
   */
  public static BodyCondition jsonSchema(String schema) {
    return Bodies.jsonSchema(schema);
  }

  /**
   * Matches the same XML; prefixes, comments, the order of attributes, and white space between
   * elements do not count.
   *
   * @see Bodies#sameXml(String)
   */
  public static BodyCondition sameXml(String text) {
    return Bodies.sameXml(text);
  }

  /**
   * Matches XML with a value that meets a condition, by an XPath 1.0 expression without prefixes.
   *
   * @see Bodies#xpath(String, ValueCondition)
   */
  public static BodyCondition xpath(String expression, ValueCondition value) {
    return Bodies.xpath(expression, value);
  }

  /**
   * Matches XML with this value, by an XPath 1.0 expression without prefixes.
   *
   * @see Bodies#xpath(String, Object)
   */
  public static BodyCondition xpath(String expression, Object value) {
    return Bodies.xpath(expression, value);
  }

  /**
   * Matches XML with a value that meets a condition, by an XPath 1.0 expression.
   *
   * @see Bodies#xpath(String, Object, Map)
   */
  public static BodyCondition xpath(
      String expression, Object value, Map<String, String> namespaces) {
    return Bodies.xpath(expression, value, namespaces);
  }

  /**
   * Matches URL-encoded forms with a field that meets a condition.
   *
   * @see Bodies#formField(String, ValueCondition)
   */
  public static BodyCondition formField(String field, ValueCondition value) {
    return Bodies.formField(field, value);
  }

  /**
   * Matches URL-encoded forms with a field of this value.
   *
   * @see Bodies#formField(String, Object)
   */
  public static BodyCondition formField(String field, Object value) {
    return Bodies.formField(field, value);
  }

  /**
   * Matches multipart bodies with a part of this name; the result takes further requirements.
   *
   * @see Bodies#part(String)
   */
  public static PartCondition part(String name) {
    return Bodies.part(name);
  }

  /**
   * Matches SOAP requests; the result takes further requirements.
   *
   * @see Bodies#soap()
   */
  public static SoapCondition soap() {
    return Bodies.soap();
  }

  /**
   * Matches GraphQL over HTTP requests; the result takes further requirements.
   *
   * @see Bodies#graphql()
   */
  public static GraphQlCondition graphql() {
    return Bodies.graphql();
  }

  /**
   * Matches by a variable of the request line, as in {@code /stations/{station}}.
   *
   * @see Conditions#path(String, ValueCondition)
   */
  public static Condition path(String variable, ValueCondition value) {
    return Conditions.path(variable, value);
  }

  /**
   * Matches if a variable of the request line has this value.
   *
   * @see Conditions#path(String, Object)
   */
  public static Condition path(String variable, Object value) {
    return Conditions.path(variable, value);
  }

  /**
   * Matches by a query parameter, decoded; by all its values if it is repeated.
   *
   * @see Conditions#query(String, ValueCondition)
   */
  public static Condition query(String name, ValueCondition value) {
    return Conditions.query(name, value);
  }

  /**
   * Matches if a query parameter has this value.
   *
   * @see Conditions#query(String, Object)
   */
  public static Condition query(String name, Object value) {
    return Conditions.query(name, value);
  }

  /**
   * Matches by a header; by all its fields if it is repeated.
   *
   * @see Conditions#header(String, ValueCondition)
   */
  public static Condition header(String name, ValueCondition value) {
    return Conditions.header(name, value);
  }

  /**
   * Matches if a header has this value.
   *
   * @see Conditions#header(String, Object)
   */
  public static Condition header(String name, Object value) {
    return Conditions.header(name, value);
  }

  /**
   * Matches by a cookie (RFC 6265).
   *
   * @see Conditions#cookie(String, ValueCondition)
   */
  public static Condition cookie(String name, ValueCondition value) {
    return Conditions.cookie(name, value);
  }

  /**
   * Matches if a cookie has this value.
   *
   * @see Conditions#cookie(String, Object)
   */
  public static Condition cookie(String name, Object value) {
    return Conditions.cookie(name, value);
  }

  /**
   * Matches by the credentials of HTTP Basic authentication (RFC 7617), masked in messages.
   *
   * @see Conditions#basic(String, String)
   */
  public static Condition basic(String user, String password) {
    return Conditions.basic(user, password);
  }

  /**
   * Matches by the token of Bearer authentication (RFC 6750), masked in messages.
   *
   * @see Conditions#bearer(ValueCondition)
   */
  public static Condition bearer(ValueCondition token) {
    return Conditions.bearer(token);
  }

  /**
   * Matches this token of Bearer authentication (RFC 6750), masked in messages.
   *
   * @see Conditions#bearer(String)
   */
  public static Condition bearer(String token) {
    return Conditions.bearer(token);
  }

  /**
   * Matches by a predicate on the request.
   *
   * @see Conditions#requestSatisfies(String, Predicate)
   */
  public static Condition requestSatisfies(String name, Predicate<Request> predicate) {
    return Conditions.requestSatisfies(name, predicate);
  }

  /**
   * Matches if all of these conditions hold.
   *
   * @see Conditions#allOf(Condition...)
   */
  public static Condition allOf(Condition... conditions) {
    return Conditions.allOf(conditions);
  }

  /**
   * Matches if one of these conditions holds.
   *
   * @see Conditions#anyOf(Condition...)
   */
  public static Condition anyOf(Condition... conditions) {
    return Conditions.anyOf(conditions);
  }

  /**
   * Matches if the condition does not hold.
   *
   * @see Conditions#not(Condition)
   */
  public static Condition not(Condition condition) {
    return Conditions.not(condition);
  }
}
