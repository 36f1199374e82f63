// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.http.Uri;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * Requests and responses, and how each violates the description, in the files {@code requests.txt}
 * and {@code responses.txt}: a message, an arrow, and its violations; none if it is as described.
 */
class DescribedMessagesTest {

  private static final Description HARBOUR = TestFiles.harbour();

  static Stream<String> requests() {
    return lines("requests.txt");
  }

  static Stream<String> responses() {
    return lines("responses.txt");
  }

  private static Stream<String> lines(String file) {
    return TestFiles.resource(file)
        .lines()
        .filter(line -> !line.isBlank() && !line.startsWith("#"));
  }

  @ParameterizedTest
  @MethodSource("requests")
  void eachRequestIsChecked(String line) {
    String[] sides = line.split(" =>", 2);
    assertEquals(line, sides[0] + " =>" + said(HARBOUR.refusals(request(sides[0]))));
  }

  /** A request, an arrow, the response, and its violations. */
  @ParameterizedTest
  @MethodSource("responses")
  void eachResponseIsChecked(String line) {
    String[] sides = line.split(" =>", 2);
    String[] call = sides[0].split(" -> ", 2);
    String[] parts = parts(call[1]);
    Response response =
        new Response(Integer.parseInt(parts[0]), headers(parts[1]), Body.of(parts[2]));
    List<Check> found = HARBOUR.impossible(request(call[0]), response, true);
    assertEquals(line, sides[0] + " =>" + said(found));
  }

  /** Reads {@code METHOD path | name: value | body}; a body of {@code -} is none. */
  private static Request request(String text) {
    String[] parts = parts(text);
    String[] words = parts[0].split(" ", 2);
    return new Request(
        words[0],
        Uri.parse("https://marrow.example" + words[1]),
        headers(parts[1]),
        Body.of(parts[2]));
  }

  private static String[] parts(String text) {
    String[] given = text.split(" \\| ", 3);
    return new String[] {
      given[0], given.length > 1 ? given[1] : "", given.length > 2 ? escaped(given[2]) : ""
    };
  }

  private static String escaped(String text) {
    return text.replace("\\r\\n", "\r\n");
  }

  private static Headers headers(String text) {
    Headers headers = Headers.none();
    for (String each : text.isBlank() ? new String[0] : text.split("; (?=[a-z-]+:)")) {
      String[] pair = each.split(": ", 2);
      headers = headers.and(pair[0].strip(), pair[1].strip());
    }
    return headers;
  }

  private static String said(List<Check> checks) {
    return checks.stream()
        .flatMap(check -> check.differences().stream().map(it -> said(check, it)))
        .map(text -> " " + text)
        .collect(Collectors.joining(" ;"));
  }

  private static String said(Check check, Difference difference) {
    return check.condition()
        + (difference.at().isEmpty() ? "" : " " + difference.at())
        + ": "
        + difference.expected().replaceAll(" +\\([a-z.]*:\\d+\\)", "")
        + ", actual "
        + difference.actual()
        + difference.cause().map(it -> " (" + it + ")").orElse("");
  }
}
