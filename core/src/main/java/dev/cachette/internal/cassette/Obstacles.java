package dev.cachette.internal.cassette;

import dev.cachette.cassette.Exchange;
import dev.cachette.cassette.Matching;
import dev.cachette.http.Request;
import dev.cachette.match.Check;
import dev.cachette.match.Difference;

/** Why a recording does not answer a request that fits a stub for it. */
final class Obstacles {

  private Obstacles() {}

  static Check of(Exchange recorded, Request actual, Matching matching) {
    Request expected = recorded.request();
    Fingerprint fingerprint = new Fingerprint(matching);
    if (!fingerprint
        .ofLine(expected.method(), expected.uri())
        .equals(fingerprint.ofLine(actual.method(), actual.uri()))) {
      return missed("query", query(expected), query(actual));
    }
    if (!fingerprint.ofRest(expected).equals(fingerprint.ofRest(actual))) {
      return missed("body", body(expected), body(actual));
    }
    boolean same = matching.comparison().map(it -> it.test(expected, actual)).orElse(true);
    if (!same) {
      return missed("comparison", "by(...) to hold for both requests", "it does not");
    }
    return recorded.isAnswered()
        ? missed("turn", "1 call at most", "used up; each recording answers once")
        : missed("answer", "a response", "none was recorded");
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

  private static Check missed(String condition, String expected, String actual) {
    return Check.missed(condition, 0.8, Difference.of(expected, actual));
  }
}
