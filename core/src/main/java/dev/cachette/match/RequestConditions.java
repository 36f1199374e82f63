// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import dev.cachette.http.Request;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;

/**
 * Conditions on requests besides method and URL; the same for stubs, patterns, and calls. Each
 * method adds a condition, and all of them must hold.
 *
 * <p>Values are plain values (a string, number, boolean, date, instant, enum constant; see {@link
 * Values#is(Object)}) or conditions of {@link Values}. Every method throws {@link
 * IllegalArgumentException} if an argument is null, except for values in JSON, where null means
 * JSON null.
 *
 * @param <T> the type that the conditions are added to
 */
public interface RequestConditions<T> {

  /** Requires all these conditions. */
  T where(Condition... conditions);

  /** Requires a variable of the request line to meet a condition. */
  default T path(String variable, ValueCondition value) {
    return where(Conditions.path(variable, value));
  }

  /** Requires a variable of the request line to have this value. */
  default T path(String variable, Object value) {
    return path(variable, PlainValue.text("path(variable, value)", value));
  }

  /** Requires a query parameter, decoded, to meet a condition. */
  default T query(String name, ValueCondition value) {
    return where(Conditions.query(name, value));
  }

  /** Requires a query parameter, decoded, to have this value. */
  default T query(String name, Object value) {
    return query(name, PlainValue.text("query(name, value)", value));
  }

  /** Requires a header to meet a condition; header names are not case-sensitive. */
  default T header(String name, ValueCondition value) {
    return where(Conditions.header(name, value));
  }

  /** Requires a header to have this value; header names are not case-sensitive. */
  default T header(String name, Object value) {
    return header(name, PlainValue.text("header(name, value)", value));
  }

  /** Requires a cookie to meet a condition. */
  default T cookie(String name, ValueCondition value) {
    return where(Conditions.cookie(name, value));
  }

  /** Requires a cookie to have this value. */
  default T cookie(String name, Object value) {
    return cookie(name, PlainValue.text("cookie(name, value)", value));
  }

  /** Requires these credentials of HTTP Basic authentication (RFC 7617). */
  default T basic(String user, String password) {
    return where(Conditions.basic(user, password));
  }

  /** Requires a token of Bearer authentication (RFC 6750) that meets a condition. */
  default T bearer(ValueCondition token) {
    return where(Conditions.bearer(token));
  }

  /**
   * Requires a valid token of Bearer authentication (RFC 6750). A request without one is answered
   * by its challenge, not by the stub.
   */
  default T bearer(Authorization tokens) {
    return where(Arguments.given("bearer(tokens)", tokens));
  }

  /** Requires this token of Bearer authentication (RFC 6750). */
  default T bearer(String token) {
    return bearer(Values.is(Arguments.given("bearer(token)", token)));
  }

  /** Requires a body that meets a condition, see {@link Bodies}. */
  default T body(BodyCondition condition) {
    return where(Arguments.given("body(condition)", condition));
  }

  /** Requires a body whose text meets a condition, like {@link #text(ValueCondition)}. */
  default T body(ValueCondition value) {
    return text(value);
  }

  /** Requires a body with exactly this text, like {@link #text(String)}. */
  default T body(String text) {
    return text(text);
  }

  /** Requires a body whose text meets a condition. */
  default T text(ValueCondition value) {
    return where(Bodies.textBody(value));
  }

  /** Requires a body with exactly this text. */
  default T text(String text) {
    return where(Bodies.sameText(text));
  }

  /**
   * Requires a JSON body that equals this object, as Jackson writes it, or this JSON if it is a
   * string; see {@link Bodies#sameJson(Object)}, and {@link Bodies#containsJson(Object)} for a
   * part.
   */
  default T json(Object body) {
    return where(body instanceof String text ? Bodies.sameJson(text) : Bodies.sameJson(body));
  }

  /** Requires a value in a JSON body, by JSONPath or JSON Pointer, to meet a condition. */
  default T json(String path, @Nullable ValueCondition value) {
    return where(Bodies.jsonAt(path, value == null ? Values.isNull() : value));
  }

  /** Requires a value in a JSON body, by JSONPath or JSON Pointer, to be this one. */
  default T json(String path, @Nullable Object value) {
    return where(Bodies.jsonAt(path, value));
  }

  /** Requires a value in an XML body, by an XPath 1.0 expression, to meet a condition. */
  default T xpath(String expression, ValueCondition value) {
    return where(Bodies.xpath(expression, value));
  }

  /** Requires a value in an XML body, by an XPath 1.0 expression, to be this one. */
  default T xpath(String expression, Object value) {
    return where(Bodies.xpath(expression, value));
  }

  /** Requires a field of a URL-encoded form to meet a condition. */
  default T form(String field, ValueCondition value) {
    return where(Bodies.formField(field, value));
  }

  /** Requires a field of a URL-encoded form to have this value. */
  default T form(String field, Object value) {
    return where(Bodies.formField(field, value));
  }

  /**
   * Requires a GraphQL over HTTP request with this operation name; {@link Bodies#graphql()} has
   * further requirements.
   *
   * @throws IllegalStateException if graphql-java is not on the classpath
   */
  default T graphql(String operation) {
    return where(Bodies.graphql().operation(operation));
  }

  /**
   * Requires a SOAP request whose first body element has this local name; {@link Bodies#soap()} has
   * further requirements.
   */
  default T soap(String bodyElement) {
    return where(Bodies.soap().element(bodyElement));
  }

  /** Requires a SOAP request whose first body element has this namespace and local name. */
  default T soap(String namespace, String bodyElement) {
    return where(Bodies.soap().element(namespace, bodyElement));
  }

  /**
   * Requires a predicate to hold for the request.
   *
   * @param name the name of the requirement in explanations
   */
  default T satisfies(String name, Predicate<Request> predicate) {
    return where(Conditions.requestSatisfies(name, predicate));
  }
}
