package dev.cachette.match;

import dev.cachette.http.Request;
import java.util.function.Predicate;

/**
 * What can be asked of requests beyond method and URL; the same on stubs, on patterns, and on
 * calls. Each method narrows further: all of it must hold.
 *
 * <p>Every method throws {@link IllegalArgumentException} where it is given null.
 *
 * @param <T> what is narrowed
 */
public interface Narrowing<T> {

  /** All these conditions hold. */
  T where(Condition... conditions);

  /** A variable of the request line. */
  default T path(String variable, ValueCondition value) {
    return where(Conditions.path(variable, value));
  }

  /** A variable of the request line is this text. */
  default T path(String variable, String value) {
    return path(variable, Values.is(value));
  }

  /** A parameter of the query, decoded. */
  default T query(String name, ValueCondition value) {
    return where(Conditions.query(name, value));
  }

  /** A parameter of the query is this text. */
  default T query(String name, String value) {
    return query(name, Values.is(value));
  }

  /** A header, whatever the case of its name. */
  default T header(String name, ValueCondition value) {
    return where(Conditions.header(name, value));
  }

  /** A header is this text. */
  default T header(String name, String value) {
    return header(name, Values.is(value));
  }

  /** A cookie. */
  default T cookie(String name, ValueCondition value) {
    return where(Conditions.cookie(name, value));
  }

  /** The credentials of HTTP Basic authentication. */
  default T basic(String user, String password) {
    return where(Conditions.basic(user, password));
  }

  /** The token of Bearer authentication. */
  default T bearer(ValueCondition token) {
    return where(Conditions.bearer(token));
  }

  /** The body, see {@link Bodies}. */
  default T body(BodyCondition condition) {
    return where(condition);
  }

  /** A value in a JSON body, by JSONPath or JSON Pointer. */
  default T json(String path, ValueCondition value) {
    return where(Bodies.json(path, value));
  }

  /** The request as a whole, by a predicate of one's own with the name that explanations use. */
  default T satisfies(String name, Predicate<Request> predicate) {
    return where(Conditions.satisfies(name, predicate));
  }
}
