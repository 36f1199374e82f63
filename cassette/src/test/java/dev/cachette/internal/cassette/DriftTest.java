// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.cassette.CassetteContent;
import dev.cachette.cassette.Drift;
import dev.cachette.cassette.Exchange;
import dev.cachette.cassette.Matching;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.http.Uri;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Changes from one recording to another. */
class DriftTest {

  private static CassetteContent content(Exchange... exchanges) {
    return new CassetteContent("harbour", Optional.empty(), List.of(exchanges));
  }

  private static Exchange exchange(String line, int status, String type, String body) {
    String[] words = line.split(" ");
    Headers headers = type.isEmpty() ? Headers.none() : Headers.none().with("content-type", type);
    return Exchange.answered(
        Instant.EPOCH,
        Duration.ZERO,
        "HTTP/1.1",
        new Request(words[0], Uri.parse(words[1]), Headers.none(), Body.empty()),
        new Response(status, headers, Body.of(body)));
  }

  private static String changes(Drift drift) {
    return drift.exchanges().stream()
        .flatMap(it -> it.changes().stream())
        .map(it -> it.kind() + " " + it.place() + " " + it.before() + ">" + it.after())
        .collect(Collectors.joining("; "));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "application/json | {\"a\":1,\"b\":2}  | {\"b\":2.0,\"a\":1}     | ``",
        "application/json | {\"a\":1}          | {\"a\":2}               | VALUE $.a 1>2",
        "application/json | {\"a\":1}          | {\"a\":\"1\"}           | TYPE $.a number>string",
        "application/json | {\"a\":1}          | {\"b\":1}               | GONE $.a number>; NEW"
            + " $.b >number",
        "application/json | [{\"a\":1}]        | [{\"a\":1},{\"a\":2,\"b\":3}] | VALUE $ 1"
            + " elements>2 elements; VALUE $[*].a 1>2; NEW $[*].b >number",
        "application/json | {\"a\":1}          | not json                | TYPE body JSON>not JSON",
        "application/x-ndjson | {\"a\":1}      | {\"a\":2}               | VALUE $[*].a 1>2",
        "application/xml  | <a b=\"1\"><c/></a> | <a b=\"2\"><d/></a>    | VALUE /a/@b \"1\">\"2\";"
            + " GONE /a/c element>; NEW /a/d >element",
        "text/plain       | one                | three                   | VALUE body 3 bytes>5"
            + " bytes",
        "application/x-www-form-urlencoded | a=1&b=2 | a=3&c=4           | VALUE field a"
            + " \"1\">\"3\"; GONE field b \"2\">; NEW field c >\"4\"",
        "image/png        | a                  | b                       | VALUE body 1 byte>1"
            + " byte",
      })
  void bodiesAreCompared(String type, String before, String after, String expected) {
    Drift drift =
        content(exchange("GET https://tides.example/v1", 200, type, before))
            .compareWith(content(exchange("GET https://tides.example/v1", 200, type, after)));
    assertEquals(expected, changes(drift));
    assertEquals(expected.isEmpty(), drift.isNone());
  }

  @Test
  void exchangesStatusAndHeadersAreCompared() {
    Drift drift =
        content(
                exchange("GET https://tides.example/v1", 200, "text/plain", "high"),
                exchange("GET https://tides.example/v2", 200, "", ""))
            .compareWith(
                content(
                    exchange("GET https://tides.example/v1", 503, "text/html", "high"),
                    exchange("GET https://tides.example/v3", 200, "", "")));
    assertEquals(
        """
        3 exchanges of "harbour" have changed:

          GET https://tides.example/v1
            status  200  ->  503
            header  content-type  text/plain  ->  text/html

          GET https://tides.example/v2
            exchange gone  200

          GET https://tides.example/v3
            exchange new  200
        """,
        drift.toString());
    assertTrue(drift.isOfShape());
  }

  @Test
  void whatIsIgnoredHasNoDrift() {
    Drift drift =
        content(exchange("GET https://tides.example/v1", 200, "application/json", "{\"at\":1}"))
            .compareWith(
                content(
                    exchange(
                        "GET https://tides.example/v1", 200, "application/json", "{\"at\":2}")),
                Matching.byDefault().ignoringJson("$.at"));
    assertTrue(drift.isNone(), drift::toString);
    assertFalse(drift.isOfShape());
    assertEquals("No changes in \"harbour\".\n", drift.toString());
  }
}
