// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertNotEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Samples;
import dev.cachette.http.Request;
import dev.cachette.internal.match.Verdict;
import dev.cachette.result.Check;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.NullSource;
import org.junit.jupiter.params.provider.ValueSource;

class RequestPatternTest {

  @ParameterizedTest(name = "{0}  matches  {1}")
  @CsvSource(
      delimiter = '|',
      value = {
        "GET https://tides.example/v1/tides           | GET https://tides.example/v1/tides",
        "GET https://tides.example/v1/tides           | GET https://tides.example/v1/tides?day=2",
        "GET https://TIDES.example/v1/tides           | GET https://tides.example:443/v1/tides",
        "GET http://tides.example:8080/v1             | GET http://tides.example:8080/v1",
        "GET https://tides.example                    | GET https://tides.example/",
        "GET /v1/tides                                | GET http://anywhere.example:81/v1/tides",
        "GET /v1/{station}/tides                      | GET https://tides.example/v1/marrow/tides",
        "GET /v1/log-{day}.txt                        | GET https://tides.example/v1/log-2.txt",
        "GET /{+rest}                                 | GET https://tides.example/",
        "GET /v1/{+rest}                              | GET https://tides.example/v1/a/b/c",
        "GET /v1/%7eb/%c3%a9                          | GET https://tides.example/v1/~b/%C3%A9",
        "GET /v1/tides?day={day}&unit=m              | GET https://t.example/v1/tides?unit=m&day=3",
        "GET /v1/tides?day                            | GET https://tides.example/v1/tides?day=",
        "GET http://[::1]:8080/v1                     | GET http://[::1]:8080/v1",
        "PROPFIND /v1                                 | PROPFIND https://tides.example/v1",
        "GET,HEAD /v1                                 | HEAD https://tides.example/v1",
        "* /v1                                        | DELETE https://tides.example/v1",
        "GET https://*.tides.example/v1               | GET https://north.tides.example/v1",
        "GET https://{desk}.tides.example:81/         | GET https://north.tides.example:81/",
        "GET https://*/v1                             | GET https://a.b.c.example/v1",
      })
  void fits(String line, String request) {
    assertTrue(RequestPattern.of(line).match(request(request)).isPresent());
    assertTrue(MatchInternals.examine(RequestPattern.of(line), request(request)).fits());
  }

  @ParameterizedTest(name = "{0}  does not match  {1}: {2}")
  @CsvSource(
      delimiter = '|',
      value = {
        "GET https://tides.example/v1  | POST https://tides.example/v1      | method",
        "GET https://tides.example/v1  | GET http://tides.example/v1        | origin",
        "GET https://tides.example/v1  | GET https://tides.example:8443/v1  | origin",
        "GET https://tides.example/v1  | GET https://berths.example/v1      | origin",
        "GET /v1                       | GET https://tides.example/v1/      | path",
        "GET /v1/{id}                  | GET https://tides.example/v1/      | path",
        "GET /v1/{id}                  | GET https://tides.example/v1/a/b   | path",
        "GET /v1/a/b                   | GET https://tides.example/v1/a%2Fb | path",
        "GET /v1/Tides                 | GET https://tides.example/v1/tides | path",
        "GET /v1?day=2                 | GET https://tides.example/v1?day=3 | query day",
        "GET,PUT /v1                   | POST https://tides.example/v1      | method",
        "GET https://*.tides.example/  | GET https://tides.example/         | origin",
        "GET https://*.tides.example/  | GET https://a.b.tides.example/     | origin",
        "GET /v1?day                   | GET https://tides.example/v1       | query day",
      })
  void doesNotFit(String line, String request, String condition) {
    Verdict verdict = MatchInternals.examine(RequestPattern.of(line), request(request));

    assertFalse(RequestPattern.of(line).match(request(request)).isPresent());
    assertEquals(List.of(condition), verdict.misses().stream().map(Check::condition).toList());
    assertTrue(verdict.nearness() < 1);
  }

  @Test
  void variablesAreDecoded() {
    RequestPattern pattern = RequestPattern.of("GET /v1/{station}/{+rest}?day={day}");

    Optional<Map<String, String>> variables =
        pattern.match(request("GET https://tides.example/v1/marrow%20bay/a/b%2Fc?day=2+April"));

    assertEquals(
        Optional.of(Map.of("station", "marrow bay", "rest", "a/b/c", "day", "2 April")), variables);
  }

  @ParameterizedTest(name = "{0}  goes before  {1}")
  @CsvSource(
      delimiter = '|',
      value = {
        "GET https://tides.example/{+rest}   | GET /v1/tides",
        "GET /v1/marrow/tides                | GET /v1/{station}/tides",
        "GET /v1/log-{day}                   | GET /v1/{name}",
        "GET /v1/{station}/tides             | GET /v1/{+rest}",
        "GET /v1/{station}/tides             | GET /{a}/{b}/{c}",
        "GET https://tides.example/{+rest}   | GET https://*.example/v1/tides",
        "GET https://*/{+rest}               | GET /v1/tides",
        "GET /v1/tides                       | GET,PUT /v1/tides",
        "GET,PUT /v1/tides                   | * /v1/tides",
        "GET /v1/tides?day                   | GET /v1/tides",
        "GET /v1/tides?day&unit              | GET /v1/tides?day",
      })
  void theMoreSpecificGoesFirst(String narrow, String wide) {
    List<RequestPattern> sorted =
        Stream.of(wide, narrow, wide)
            .map(RequestPattern::of)
            .sorted(MatchInternals.mostSpecificFirst())
            .toList();

    assertEquals(narrow, sorted.get(0).toString());
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "https://tides.example/v1          | column 1: missing method",
        "GET                               | column 4: missing URL",
        "get https://tides.example/v1      | column 1: methods are case-sensitive",
        "G/T https://tides.example/v1      | column 1: \"G/T\" is not a method",
        "GET,put https://tides.example/v1  | column 5: methods are case-sensitive",
        "GET, https://tides.example/v1     | column 5: missing method after the comma",
        "GET https://{+all}.example/       | column 14: in a host, a variable is one label",
        "GET https://{a}.example/{a}       | column 25: the variable \"a\" occurs twice",
        "GET  https://tides.example/v1     | column 5: white space in the URL",
        "GET https://tides.example/v1 /x   | column 29: white space in the URL",
        "GET https://tides.example/v1#top  | column 29: a fragment is never sent",
        "GET tides.example/v1              | column 5: the URL has neither a scheme",
        "GET ftp://tides.example/v1        | column 5: the scheme \"ftp\" is not intercepted",
        "GET https:///v1                   | column 13: missing host",
        "GET https://ti_des!.example/v1    | column 13: \"ti_des!\" is not a label of a host",
        "GET https://me@tides.example/v1   | column 13: user information",
        "GET https://tides.example:x/v1    | column 27: \"x\" is not a port",
        "GET https://tides.example:70000/  | column 27: \"70000\" is not a port",
        "GET /v1/{station                  | column 9: missing closing brace of a variable",
        "GET /v1/{station/tides}           | column 9: missing closing brace of a variable",
        "GET /v1/station}                  | column 16: closing brace without",
        "GET /v1/{}                        | column 9: this variable has no name",
        "GET /v1/{?day}                    | column 10: of the operators of RFC 6570",
        "GET /v1/{a b}                     | column 11: white space in the URL",
        "GET /v1/{a-b}                     | column 10: \"a-b\" is not a variable name",
        "GET /v1/{a}/{a}                   | column 13: the variable \"a\" occurs twice",
        "GET /v1?day=a{b}                  | column 14: in a query",
        "GET /v1?day={b}c                  | column 16: unexpected text after the variable",
      })
  void aMalformedLineIsRefusedWithItsPlaceAndAFix(String line, String expected) {
    var refused = assertThrows(IllegalArgumentException.class, () -> RequestPattern.of(line));

    assertTrue(
        refused.getMessage().startsWith("Malformed request line, at " + expected),
        refused::getMessage);
    assertTrue(refused.getMessage().contains("\nFix: "), refused::getMessage);
  }

  @Test
  void thePlaceIsMarked() {
    var refused =
        assertThrows(
            IllegalArgumentException.class,
            () -> RequestPattern.of("GET https://tides.example/v1/{station/tides"));

    assertEquals(
        """
        Malformed request line, at column 30: missing closing brace of a variable.

          GET https://tides.example/v1/{station/tides
                                       ^

        Fix: close it, as in {station}.\
        """,
        refused.getMessage());
  }

  @ParameterizedTest
  @NullSource
  @ValueSource(strings = {"", "  "})
  void anEmptyRequestLineIsRefused(String line) {
    var refused = assertThrows(IllegalArgumentException.class, () -> RequestPattern.of(line));

    assertTrue(refused.getMessage().contains("Fix: write one, such as \"GET https://tides"));
  }

  @Test
  void patternsAreEqualWhereTheyAskTheSame() {
    RequestPattern one = RequestPattern.of("GET /v1").bearer(Values.is("a"));

    assertEquals(one, RequestPattern.of("GET /v1").bearer(Values.is("a")));
    assertNotEquals(one, RequestPattern.of("GET /v1").bearer(Values.is("b")));
    assertEquals("GET /v1 where bearer token: \"****\"", one.toString());
  }

  private static Request request(String line) {
    return Samples.request(line);
  }
}
