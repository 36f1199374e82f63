// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import static dev.cachette.match.Arguments.given;
import static dev.cachette.match.Arguments.named;

import dev.cachette.http.Header;
import dev.cachette.http.Request;
import dev.cachette.internal.content.Cookies;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.secret.Masking;
import dev.cachette.internal.text.NameSuggester;
import dev.cachette.result.Cause;
import java.util.Arrays;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;

/**
 * Creates conditions on requests, for static import, as arguments of {@code where(...)}. Stubs,
 * patterns and calls have methods for the same conditions; as values you can name, share, combine
 * and negate them: {@code where(header("x-desk", "north").or(bearer(present())))}.
 *
 * <p>Every method throws {@link IllegalArgumentException} if an argument is null, or a name is
 * blank or malformed.
 */
public final class Conditions {

  private Conditions() {}

  /** Matches by a variable of the request line, as in {@code /stations/{station}}. */
  public static Condition path(String variable, ValueCondition value) {
    return new ValueOfRequest(
        "path",
        named("path(variable, value)", variable),
        received -> Optional.ofNullable(received.variables().get(variable)).stream().toList(),
        text -> Masking.value(variable, text),
        received -> near("a path", variable, received.variables().keySet()),
        given("path(variable, value)", value));
  }

  /** Matches if a variable of the request line has this value. */
  public static Condition path(String variable, Object value) {
    return path(variable, PlainValue.text("path(variable, value)", value));
  }

  /** Matches by a query parameter, decoded; by all its values if it is repeated. */
  public static Condition query(String name, ValueCondition value) {
    return new ValueOfRequest(
        "query",
        named("query(name, value)", name),
        received -> received.query().all(name),
        text -> Masking.field(name, text),
        received -> near("a query", name, received.query().names()),
        given("query(name, value)", value));
  }

  /** Matches if a query parameter has this value. */
  public static Condition query(String name, Object value) {
    return query(name, PlainValue.text("query(name, value)", value));
  }

  /**
   * Matches by a header; by all its fields if it is repeated. Header names are not case-sensitive.
   */
  public static Condition header(String name, ValueCondition value) {
    return new ValueOfRequest(
        "header",
        Arguments.token("header(name, value)", name),
        received -> received.request().headers().all(name),
        text -> Header.masked(name, text),
        received ->
            near(
                "a header", name, received.request().headers().stream().map(Header::name).toList()),
        given("header(name, value)", value));
  }

  /** Matches if a header has this value. */
  public static Condition header(String name, Object value) {
    return header(name, PlainValue.text("header(name, value)", value));
  }

  /** Matches by a cookie (RFC 6265). Its value is masked in messages. */
  public static Condition cookie(String name, ValueCondition value) {
    return new ValueOfRequest(
        "cookie",
        Arguments.token("cookie(name, value)", name),
        received -> Cookies.in(received.request()).all(name),
        text -> Header.MASK,
        received -> near("a cookie", name, Cookies.in(received.request()).names()),
        given("cookie(name, value)", value));
  }

  /** Matches if a cookie has this value. */
  public static Condition cookie(String name, Object value) {
    return cookie(name, PlainValue.text("cookie(name, value)", value));
  }

  /** Matches by the credentials of HTTP Basic authentication (RFC 7617), masked in messages. */
  public static Condition basic(String user, String password) {
    return new BasicCredentials(
        given("basic(user, password)", user), given("basic(user, password)", password));
  }

  /** Matches by the token of Bearer authentication (RFC 6750), masked in messages. */
  public static Condition bearer(ValueCondition token) {
    return new ValueOfRequest(
        "bearer",
        "token",
        received -> BasicCredentials.credentials(received, "Bearer"),
        text -> Header.MASK,
        received -> BasicCredentials.absence(received, "Bearer"),
        given("bearer(token)", token));
  }

  /** Matches this token of Bearer authentication (RFC 6750), masked in messages. */
  public static Condition bearer(String token) {
    return bearer(Values.is(given("bearer(token)", token)));
  }

  /**
   * Matches by a predicate on the request.
   *
   * @param name the name of the requirement in explanations
   */
  public static Condition requestSatisfies(String name, Predicate<Request> predicate) {
    return new OwnCondition(
        named("requestSatisfies(name, predicate)", name),
        given("requestSatisfies(name, predicate)", predicate));
  }

  /**
   * Matches if all of these conditions hold.
   *
   * @throws IllegalArgumentException if there is none
   */
  public static Condition allOf(Condition... conditions) {
    List<Condition> all = List.of(given("allOf(conditions)", conditions));
    if (all.isEmpty()) {
      throw Refusals.argument("allOf(conditions) needs at least one condition.");
    }
    return new AllOf(all);
  }

  /**
   * Matches if one of these conditions holds.
   *
   * @throws IllegalArgumentException if there is none
   */
  public static Condition anyOf(Condition... conditions) {
    return Arrays.stream(given("anyOf(conditions)", conditions))
        .map(condition -> given("anyOf(conditions)", condition))
        .reduce(Condition::or)
        .orElseThrow(() -> Refusals.argument("anyOf(conditions) needs at least one condition."));
  }

  /** Matches if the condition does not hold. */
  public static Condition not(Condition condition) {
    return given("not(condition)", condition).negated();
  }

  /** Returns a similar name that the request has. */
  private static Optional<Cause> near(String what, String name, Collection<String> names) {
    return NameSuggester.hint(what, name, names).map(Cause::certain);
  }
}
