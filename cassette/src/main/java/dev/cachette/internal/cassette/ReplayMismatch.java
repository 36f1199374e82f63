// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import dev.cachette.cassette.CassetteInternals;
import dev.cachette.cassette.Exchange;
import dev.cachette.cassette.Matching;
import dev.cachette.http.Request;
import dev.cachette.internal.explain.Obstacle;
import dev.cachette.result.Check;

/** Explains why a recorded exchange does not answer a request with a matching request line. */
final class ReplayMismatch {

  private ReplayMismatch() {}

  static Check of(Exchange recorded, Request actual, Matching matching) {
    Request expected = recorded.request();
    if (!CassetteInternals.keyOfLine(matching, expected.method(), expected.uri())
        .equals(CassetteInternals.keyOfLine(matching, actual.method(), actual.uri()))) {
      return Obstacle.of("query", query(expected), query(actual));
    }
    if (!CassetteInternals.keyOfRest(matching, expected)
        .equals(CassetteInternals.keyOfRest(matching, actual))) {
      return Obstacle.of("body", body(expected), body(actual));
    }
    boolean same = matching.comparison().map(it -> it.test(expected, actual)).orElse(true);
    if (!same) {
      return Obstacle.of("comparison", "by(...) to hold for both requests", "it does not");
    }
    return recorded.isAnswered()
        ? Obstacle.of(
            Obstacle.USED_UP, "at most 1 call", "already used up: each exchange answers once")
        : Obstacle.of("recorded answer", "a response", "none was recorded");
  }

  private static String query(Request request) {
    return request.uri().rawQuery().map(query -> "?" + query).orElse("no parameters");
  }

  private static String body(Request request) {
    return request.body().isEmpty()
        ? "no body"
        : request.body()
            + request.headers().first("content-type").map(type -> " of " + type).orElse("");
  }
}
