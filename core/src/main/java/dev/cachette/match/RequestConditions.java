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
public interface RequestConditions<T> {

  /** Returns all these conditions hold. */
  T where(Condition... conditions);

  /** Returns a variable of the request line. */
  default T path(String variable, ValueCondition value) {
    return where(Conditions.path(variable, value));
  }

  /** Returns a variable of the request line is this text. */
  default T path(String variable, String value) {
    return path(variable, Values.is(value));
  }

  /** Returns a parameter of the query, decoded. */
  default T query(String name, ValueCondition value) {
    return where(Conditions.query(name, value));
  }

  /** Returns a parameter of the query is this text. */
  default T query(String name, String value) {
    return query(name, Values.is(value));
  }

  /** Returns a header, whatever the case of its name. */
  default T header(String name, ValueCondition value) {
    return where(Conditions.header(name, value));
  }

  /** Returns a header is this text. */
  default T header(String name, String value) {
    return header(name, Values.is(value));
  }

  /** Returns a cookie. */
  default T cookie(String name, ValueCondition value) {
    return where(Conditions.cookie(name, value));
  }

  /** Returns the credentials of HTTP Basic authentication. */
  default T basic(String user, String password) {
    return where(Conditions.basic(user, password));
  }

  /** Returns the token of Bearer authentication. */
  default T bearer(ValueCondition token) {
    return where(Conditions.bearer(token));
  }

  /** Returns the body, see {@link Bodies}. */
  default T body(BodyCondition condition) {
    return where(condition);
  }

  /** Returns a value in a JSON body, by JSONPath or JSON Pointer. */
  default T json(String path, ValueCondition value) {
    return where(Bodies.json(path, value));
  }

  /** Returns the request as a whole, by a custom predicate with the name that explanations use. */
  default T satisfies(String name, Predicate<Request> predicate) {
    return where(Conditions.satisfies(name, predicate));
  }
}
