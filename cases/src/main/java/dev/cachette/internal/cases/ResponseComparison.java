// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases;

import dev.cachette.cassette.Exchange;
import dev.cachette.http.Headers;
import dev.cachette.http.Response;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.text.Quoting;
import dev.cachette.replay.CaseFinding;
import dev.cachette.replay.CaseFinding.Kind;
import dev.cachette.result.Cause;
import dev.cachette.result.Difference;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;

/** Compares the response of an application with that in a case. */
public final class ResponseComparison {

  private static final int SERVER_ERROR = 500;
  private static final int LONGEST_BODY = 300;

  private ResponseComparison() {}

  /**
   * Returns the differences.
   *
   * @param call the request line of the incoming call
   * @param actual the exchange now, with placeholders for secrets
   */
  public static List<CaseFinding> findings(String call, CaseExchange expected, Exchange actual) {
    Response want = expected.exchange().response().orElseThrow();
    Response have = actual.response().orElseThrow();
    List<Difference> found = new ArrayList<>();
    if (want.status() != have.status()) {
      found.add(
          new Difference(
              "status",
              Integer.toString(want.status()),
              Integer.toString(have.status()),
              body(have).map(Cause::likely)));
    }
    MessageComparison comparison =
        new MessageComparison(expected.response(), expected.exchange().started(), actual.started());
    found.addAll(comparison.headers(want.headers(), have.headers()));
    addCookies(want.headers(), have.headers(), found);
    if (want.status() == have.status()) {
      found.addAll(comparison.body(want.headers(), want.body(), have.headers(), have.body()));
    }
    return found.stream()
        .map(
            it ->
                new CaseFinding(
                    Kind.RESPONSE,
                    call,
                    it.at(),
                    it.expected(),
                    it.actual(),
                    it.cause().map(Cause::toString).orElse("")))
        .toList();
  }

  /** The body of an error says more than its status. */
  private static Optional<String> body(Response response) {
    String text = Content.of(response.headers(), response.body()).text().strip();
    return response.status() < SERVER_ERROR && response.status() / 100 != 4 || text.isEmpty()
        ? Optional.empty()
        : Optional.of(
            "its body is "
                + Quoting.quote(
                    text.length() > LONGEST_BODY ? text.substring(0, LONGEST_BODY) : text));
  }

  private static void addCookies(Headers expected, Headers actual, List<Difference> found) {
    Map<String, String> want = cookies(expected);
    Map<String, String> have = cookies(actual);
    Set<String> names = new TreeSet<>(want.keySet());
    names.addAll(have.keySet());
    for (String name : names) {
      String wanted = want.getOrDefault(name, "none");
      String given = have.getOrDefault(name, "none");
      if (!wanted.equals(given)) {
        found.add(new Difference("cookie " + name, wanted, given, Optional.empty()));
      }
    }
  }

  /** Returns the attributes of cookies by name (RFC 6265); values vary, and so do times. */
  private static Map<String, String> cookies(Headers headers) {
    Map<String, String> cookies = new TreeMap<>();
    for (String each : headers.all("set-cookie")) {
      String[] parts = each.split(";");
      String attributes =
          Arrays.stream(parts)
              .skip(1)
              .map(it -> it.strip().toLowerCase(Locale.ROOT))
              .filter(it -> !it.startsWith("expires=") && !it.startsWith("max-age="))
              .sorted()
              .collect(Collectors.joining("; "));
      cookies.put(
          parts[0].split("=", 2)[0].strip(), attributes.isEmpty() ? "no attributes" : attributes);
    }
    return cookies;
  }
}
