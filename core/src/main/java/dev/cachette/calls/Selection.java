// SPDX-License-Identifier: Apache-2.0
package dev.cachette.calls;

import dev.cachette.match.Condition;
import dev.cachette.match.MatchInternals;
import dev.cachette.match.Received;
import dev.cachette.match.RequestPattern;
import dev.cachette.result.StubReference;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.stream.Collectors;

/**
 * A selection of the calls of a log.
 *
 * @param description its name in messages; empty for all calls
 * @param pattern the pattern that the calls must match, if there is one
 * @param filter drops the calls that are not selected
 */
record Selection(
    String description, Optional<RequestPattern> pattern, Function<Call, Optional<Call>> filter) {

  private static final RequestPattern ANY = RequestPattern.of("* /{+path}");

  static Selection everything() {
    return new Selection("", Optional.empty(), Optional::of);
  }

  static Selection fitting(RequestPattern pattern) {
    return new Selection(pattern.toString(), Optional.of(pattern), call -> through(pattern, call));
  }

  static Selection chosen(String description, Predicate<Call> predicate) {
    return new Selection(
        description, Optional.empty(), call -> Optional.of(call).filter(predicate));
  }

  /** Returns the calls of a stub; its pattern explains why others are not included. */
  static Selection answeredBy(StubReference stub, RequestPattern pattern) {
    return new Selection(
        "the stub " + stub,
        Optional.of(pattern),
        // By identity: two stubs may have the same name and line.
        call -> Optional.of(call).filter(each -> each.stub().filter(by -> by == stub).isPresent()));
  }

  /** Returns the calls that are in both. */
  Selection and(Selection other) {
    String both =
        description.isEmpty() ? other.description : description + " and " + other.description;
    return new Selection(
        other.description.isEmpty() ? description : both,
        other.pattern.or(() -> pattern),
        call -> filter.apply(call).flatMap(other.filter));
  }

  /** Returns the calls that are in either. */
  Selection or(Selection other) {
    return new Selection(
        description + " or " + other.description,
        Optional.empty(),
        call -> filter.apply(call).or(() -> other.filter.apply(call)));
  }

  Selection where(Condition... conditions) {
    String words =
        Arrays.stream(conditions).map(Condition::description).collect(Collectors.joining("; "));
    Selection narrowed =
        and(
            chosen(
                words, call -> Arrays.stream(conditions).allMatch(each -> each.holds(seen(call)))));
    return new Selection(
        description.isEmpty() ? "a request where " + words : description + " where " + words,
        // Of all calls, a pattern for any request explains which one is closest.
        pattern
            .or(() -> Optional.of(ANY).filter(any -> description.isEmpty()))
            .map(wider -> wider.where(conditions)),
        narrowed.filter);
  }

  List<Call> from(List<Call> all) {
    return all.stream().map(filter).flatMap(Optional::stream).toList();
  }

  boolean means(Call call) {
    return filter.apply(call).isPresent();
  }

  /** Returns the calls that are not selected. */
  List<Call> others(List<Call> all) {
    return all.stream().filter(call -> !means(call)).toList();
  }

  /** Returns {@code 2 calls of GET https://...}. */
  String counted(int count) {
    return (count == 1 ? "1 call" : count + " calls") + of();
  }

  /** Returns {@code of GET https://...}, after a space; empty for all calls. */
  String of() {
    return description.isEmpty() ? "" : " of " + description;
  }

  private static Received seen(Call call) {
    return MatchInternals.with(MatchInternals.received(call.request()), call.variables());
  }

  private static Optional<Call> through(RequestPattern pattern, Call call) {
    Optional<Map<String, String>> variables = pattern.match(call.request());
    return variables.map(found -> found.isEmpty() ? call : new CallWithVariables(call, found));
  }
}
