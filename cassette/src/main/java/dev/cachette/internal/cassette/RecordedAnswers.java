// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import dev.cachette.answer.ResponseAnswer;
import dev.cachette.cassette.CassetteContent;
import dev.cachette.cassette.CassetteException;
import dev.cachette.cassette.Exchange;
import dev.cachette.http.Body;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.internal.content.Content;
import dev.cachette.match.RequestPattern;
import java.util.List;
import java.util.function.Predicate;
import java.util.stream.Collectors;

/** Recorded exchanges as answers of stubs. */
public final class RecordedAnswers {

  private static final String ANYTHING = "...";
  private static final int LISTED = 20;

  private RecordedAnswers() {}

  /**
   * Returns the first response to a request, decoded from its content encoding.
   *
   * @param line a request line, whose URL may begin with three dots as a wildcard
   * @throws CassetteException if the cassette has no such exchange, or several with different URLs
   */
  public static ResponseAnswer of(CassetteContent cassette, String line) {
    Predicate<Request> wanted = wanted(line);
    List<Exchange> found =
        cassette.exchanges().stream()
            .filter(exchange -> exchange.response().isPresent())
            .filter(exchange -> wanted.test(exchange.request()))
            .toList();
    if (found.isEmpty()) {
      throw refused(cassette, line, "has no answered exchange", cassette.exchanges());
    }
    if (found.stream().map(exchange -> exchange.request().uri()).distinct().count() > 1) {
      throw refused(cassette, line, "has several exchanges", found);
    }
    Response response = found.get(0).response().orElseThrow();
    Content content = Content.of(response.headers(), response.body());
    boolean undone = content.encodingProblem().isEmpty();
    return ResponseAnswer.of(
        new Response(
            response.status(),
            undone ? response.headers().with("content-encoding") : response.headers(),
            undone ? Body.of(content.bytes()) : response.body(),
            response.trailers()));
  }

  private static Predicate<Request> wanted(String line) {
    int dots = line.indexOf(" " + ANYTHING);
    if (dots < 0) {
      RequestPattern pattern = RequestPattern.of(line);
      return request -> pattern.match(request).isPresent();
    }
    String method = line.substring(0, dots);
    String end = line.substring(dots + 1 + ANYTHING.length());
    return request ->
        (method.equals("*") || request.method().equals(method))
            && (end.indexOf('?') < 0
                ? request.uri().path().endsWith(end)
                : request.uri().toString().endsWith(end));
  }

  private static CassetteException refused(
      CassetteContent cassette, String line, String what, List<Exchange> shown) {
    return new CassetteException(
        String.format(
            "The cassette %s %s for \"%s\":\n%s\nFix: choose one of them.",
            cassette.name(),
            what,
            line,
            shown.stream()
                .limit(LISTED)
                .map(exchange -> "  " + exchange)
                .collect(Collectors.joining("\n"))));
  }
}
