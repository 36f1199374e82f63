package dev.cachette.match;

import static dev.cachette.match.Arguments.given;
import static dev.cachette.match.Arguments.named;

import dev.cachette.http.Header;
import dev.cachette.http.Request;
import dev.cachette.internal.content.Cookies;
import dev.cachette.internal.text.Secrets;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;

/**
 * Makes conditions on requests, for static import and given to {@code where(...)}. The same
 * conditions can be said directly on stubs, patterns and calls; as values they can be named,
 * shared, combined and negated: {@code where(header("x-desk", is("north")).or(bearer(present())))}.
 *
 * <p>Every method throws {@link IllegalArgumentException} where it is given null or no name.
 */
public final class Conditions {

  private Conditions() {}

  /** On a variable of the request line, as in {@code /stations/{station}}. */
  public static Condition path(String variable, ValueCondition value) {
    return new ValueOfRequest(
        "path",
        named("path(variable, value)", variable),
        received -> Optional.ofNullable(received.variables().get(variable)).stream().toList(),
        UnaryOperator.identity(),
        received -> received.variables().keySet(),
        given("path(variable, value)", value));
  }

  /** On a parameter of the query, decoded; all its values where it is repeated. */
  public static Condition query(String name, ValueCondition value) {
    return new ValueOfRequest(
        "query",
        given("query(name, value)", name),
        received -> received.query().all(name),
        text -> Secrets.masked(name, text),
        received -> received.query().names(),
        given("query(name, value)", value));
  }

  /** On a header, whatever the case of its name; all its fields where it is repeated. */
  public static Condition header(String name, ValueCondition value) {
    return new ValueOfRequest(
        "header",
        named("header(name, value)", name),
        received -> received.request().headers().all(name),
        text -> Header.masked(name, text),
        received -> received.request().headers().stream().map(Header::name).toList(),
        given("header(name, value)", value));
  }

  /** On a cookie (RFC 6265). Its value is masked in messages. */
  public static Condition cookie(String name, ValueCondition value) {
    return new ValueOfRequest(
        "cookie",
        named("cookie(name, value)", name),
        received -> Cookies.in(received.request()).all(name),
        text -> Header.MASK,
        received -> Cookies.in(received.request()).names(),
        given("cookie(name, value)", value));
  }

  /** On the credentials of HTTP Basic authentication (RFC 7617). They are masked in messages. */
  public static Condition basic(String user, String password) {
    return new BasicCredentials(
        given("basic(user, password)", user), given("basic(user, password)", password));
  }

  /** On the token of Bearer authentication (RFC 6750). It is masked in messages. */
  public static Condition bearer(ValueCondition token) {
    return new ValueOfRequest(
        "bearer",
        "token",
        received -> BasicCredentials.credentials(received, "Bearer"),
        text -> Header.MASK,
        received -> List.of(),
        given("bearer(token)", token));
  }

  /** On the request as a whole, by a custom predicate. */
  public static Condition satisfies(String name, Predicate<Request> predicate) {
    return new OwnCondition(
        named("satisfies(name, predicate)", name), given("satisfies(name, predicate)", predicate));
  }

  /**
   * Returns all of these hold.
   *
   * @throws IllegalArgumentException if there is none
   */
  public static Condition allOf(Condition... conditions) {
    List<Condition> all = List.of(given("allOf(conditions)", conditions));
    if (all.isEmpty()) {
      throw new IllegalArgumentException("allOf(conditions) was given no condition.");
    }
    return new AllOf(all);
  }

  /**
   * One of these holds.
   *
   * @throws IllegalArgumentException if there is none
   */
  public static Condition anyOf(Condition... conditions) {
    return Arrays.stream(given("anyOf(conditions)", conditions))
        .map(condition -> given("anyOf(conditions)", condition))
        .reduce(Condition::or)
        .orElseThrow(
            () -> new IllegalArgumentException("anyOf(conditions) was given no condition."));
  }

  /** Returns the condition does not hold. */
  public static Condition not(Condition condition) {
    return given("not(condition)", condition).negated();
  }
}
