// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases;

import dev.cachette.http.Query;
import dev.cachette.http.Request;
import dev.cachette.internal.cassette.PlainForms;
import dev.cachette.internal.text.Quoting;
import dev.cachette.internal.uri.VaryingPath;
import dev.cachette.result.Difference;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/** Compares outgoing requests with those of a case; both with placeholders for secrets. */
public final class CallComparison {

  private CallComparison() {}

  /** Returns true if a request is for the same method and resource. */
  public static boolean isSameResource(CaseExchange expected, Request actual, Instant now) {
    Request request = expected.exchange().request();
    return request.method().equals(actual.method())
        && request.uri().origin().equals(actual.uri().origin())
        && isSamePath(expected, actual.uri().path(), now);
  }

  private static boolean isSamePath(CaseExchange expected, String actual, Instant now) {
    String path = PlainForms.of(expected.exchange().request()).uri().path();
    if (path.equals(actual) || expected.request().path().isEmpty()) {
      return path.equals(actual);
    }
    List<String> template = List.of(expected.request().path().get());
    return VaryingPath.of(actual, template).equals(template.get(0))
        && comparison(expected, now).isSameShape(path, actual);
  }

  private static MessageComparison comparison(CaseExchange expected, Instant now) {
    return new MessageComparison(expected.request(), expected.exchange().started(), now);
  }

  /** Returns the differences of a request for the same resource. */
  static List<Difference> differences(CaseExchange expected, Request actual, Instant now) {
    Request request = PlainForms.of(expected.exchange().request());
    MessageComparison comparison = comparison(expected, now);
    List<Difference> found = new ArrayList<>();
    Query want = request.uri().query();
    Query have = actual.uri().query();
    Set<String> names = new TreeSet<>(want.names());
    names.addAll(have.names());
    for (String name : names) {
      String wanted = String.join(", ", want.all(name));
      String given = String.join(", ", have.all(name));
      boolean varies =
          expected.request().query().contains(name) && comparison.isSameShape(wanted, given);
      if (!want.all(name).equals(have.all(name)) && !varies) {
        found.add(
            new Difference(
                "query " + name,
                want.names().contains(name) ? Quoting.quote(wanted) : "none",
                have.names().contains(name) ? Quoting.quote(given) : "none",
                Optional.empty()));
      }
    }
    found.addAll(comparison.headers(request.headers(), actual.headers()));
    found.addAll(
        comparison.body(request.headers(), request.body(), actual.headers(), actual.body()));
    return found;
  }
}
