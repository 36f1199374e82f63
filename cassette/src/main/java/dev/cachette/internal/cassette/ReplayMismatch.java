// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import dev.cachette.cassette.CassetteInternals;
import dev.cachette.cassette.Exchange;
import dev.cachette.cassette.Matching;
import dev.cachette.http.Request;
import dev.cachette.internal.explain.Obstacle;
import dev.cachette.internal.secret.Masking;
import dev.cachette.internal.text.Quoting;
import dev.cachette.result.Check;
import java.util.List;
import java.util.stream.Collectors;

/** Explains why a recorded exchange does not answer a request with a matching request line. */
final class ReplayMismatch {

  private ReplayMismatch() {}

  static Check of(Exchange recorded, Request actual, Matching matching) {
    Request expected = recorded.request();
    if (!CassetteInternals.keyOfLine(matching, expected.method(), expected.uri())
        .equals(CassetteInternals.keyOfLine(matching, actual.method(), actual.uri()))) {
      return Obstacle.of("query", query(expected), query(actual));
    }
    for (String header : matching.headers()) {
      List<String> wanted = expected.headers().all(header);
      List<String> found = actual.headers().all(header);
      if (!wanted.equals(found)) {
        return Obstacle.of("header " + header, header(header, wanted), header(header, found));
      }
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

  private static String header(String name, List<String> values) {
    return values.isEmpty()
        ? "no such header"
        : values.stream()
            .map(it -> Quoting.quote(Masking.header(name, it)))
            .collect(Collectors.joining(", "));
  }

  private static String body(Request request) {
    return request.body().isEmpty()
        ? "no body"
        : request.body()
            + request.headers().first("content-type").map(type -> " of " + type).orElse("");
  }
}
