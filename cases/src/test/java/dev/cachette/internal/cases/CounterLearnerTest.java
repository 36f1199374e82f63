// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.cachette.cassette.Exchange;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.http.Uri;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Counters, and what only looks like one. */
class CounterLearnerTest {

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '~',
      value = {
        "/v1/bookings | {\"id\":1};{\"id\":2} | $.id",
        "/v1/bookings | {\"id\":1};{\"id\":7} | $.id",
        "/v1/bookings | {\"bookingId\":\"B-9\"};{\"bookingId\":\"B-10\"} | $.bookingId",
        "/v1/bookings | {\"a\":{\"number\":41}};{\"a\":{\"number\":42}} | $.a.number",
        "/v1/bookings | {\"place\":1};{\"place\":2};{\"place\":3} | $.place",
        "/v1/bookings | {\"place\":1};{\"place\":2} | none",
        "/v1/bookings | {\"length\":10};{\"length\":25};{\"length\":40} | none",
        "/v1/bookings | {\"id\":2};{\"id\":1} | none",
        "/v1/bookings | {\"id\":1};{\"id\":1} | none",
        "/v1/bookings | {\"id\":1};{\"id\":99999} | none",
        "/v1/bookings | {\"id\":\"A-1\"};{\"id\":\"B-2\"} | none",
        "/v1/bookings | {\"id\":1} | none",
        "/v1/bookings | [{\"id\":1}];[{\"id\":2}] | none",
        "/v1/bookings/# | {\"id\":1};{\"id\":2} | none",
        "/v1/bookings | {\"id\":\"x\"};{\"id\":\"y\"} | none",
        "/v1/bookings | {\"id\":1.5};{\"id\":2.5} | none"
      })
  void counters(String path, String bodies, String expected) {
    List<CaseExchange> incoming = new ArrayList<>();
    for (String body : bodies.split(";")) {
      int number = incoming.size() + 1;
      incoming.add(exchange(path.replace("#", Integer.toString(number)), body, number));
    }

    Set<String> found = new TreeSet<>();
    CounterLearner.learn(incoming).values().forEach(it -> found.addAll(it.json()));

    assertEquals(expected.equals("none") ? Set.of() : Set.of(expected), found);
  }

  private static CaseExchange exchange(String path, String body, int number) {
    Request request =
        new Request("GET", Uri.parse("http://localhost:8080" + path), Headers.none(), Body.empty());
    Headers json = Headers.none().with("content-type", "application/json");
    return CaseExchange.of(
        Exchange.answered(
            Instant.EPOCH.plusSeconds(number),
            Duration.ZERO,
            "HTTP/1.1",
            request,
            new Response(200, json, Body.of(body))));
  }
}
