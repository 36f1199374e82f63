// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.guide;

import static dev.cachette.Factories.*;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Cachette;
import dev.cachette.Outage;
import dev.cachette.RestCollection;
import dev.cachette.Settings;
import dev.cachette.Stub;
import dev.cachette.TestClock;
import dev.cachette.UnusedStubs;
import dev.cachette.examples.harbour.Booking;
import dev.cachette.junit.CachetteExtension;
import dev.cachette.junit.InterceptHttp;
import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.api.parallel.ResourceLock;

/** The snippets of docs/guide/answers.md; GuideTest compares them with the page. */
@ResourceLock(InterceptHttp.LOCK)
class AnswersGuideTest {

  private static final String TIDES = "GET https://tides.example/v1/tides";
  private static final String URL = "https://tides.example/v1/tides";

  // snippet clock
  private final TestClock clock = TestClock.stoppedAt(Instant.parse("2031-04-02T12:00:00Z"));

  @RegisterExtension
  final CachetteExtension cachette =
      CachetteExtension.with(
          Settings.defaults().clock(clock).seed(7).unusedStubs(UnusedStubs.IGNORE));

  // end

  @Test
  void responses(Cachette net) {
    // snippet responses
    net.stub(TIDES)
        .answer(
            json(new Booking("B-12", "04:10")).status(201).header("x-desk", "7"),
            json("{\"high\": [\"04:10\", \"16:35\"]}").etag("v1"),
            xml("<tide high='04:10'/>"),
            html("<h1>High water</h1>"),
            text("04:10").cookie("desk", "north", "Path=/", "HttpOnly"),
            classpath("harbour/tides.json").compressed().ranges(),
            problem(404, "No such station", Map.of("detail", "Nobody knows Skerry.")),
            redirect("https://tides.example/v2/tides").status(308),
            status(204));
    // end

    assertEquals(201, Http.call("GET", URL).statusCode());
    assertEquals(304, Http.call("GET", URL, "", "if-none-match: \"v1\"").statusCode());
  }

  @Test
  void inTurn(Cachette net) {
    // snippet in-turn
    net.stub(TIDES).answer(text("z"));
    net.stub(TIDES).answer(status(503), status(503)).onceEach();
    // end
    assertEquals(503, Http.call("GET", URL).statusCode());
    assertEquals(503, Http.call("GET", URL).statusCode());
    assertEquals("z", Http.call("GET", URL).body());

    // snippet how-often
    net.stub("GET /a").answer(text("a"), text("b"));
    net.stub("GET /b").answer(text("a"), text("b")).looping();
    net.stub("GET /c").answer(text("a")).times(2);
    net.stub("GET /d").answer(text("a")).onCall(3, status(500));
    // end
  }

  @Test
  void byTime(Cachette net) {
    // snippet by-time
    Instant change = net.clock().instant().plusSeconds(60);
    net.stub(TIDES).answer(text("the new table")).from(change);
    net.stub(TIDES).answer(text("the old table")).until(change);

    assertEquals("the old table", Http.call("GET", URL).body());
    net.clock().advance(Duration.ofMinutes(1));
    assertEquals("the new table", Http.call("GET", URL).body());
    // end
  }

  @Test
  void outage(Cachette net) {
    net.stub(TIDES).answer(text("04:10"));
    // snippet outage
    Outage outage = net.outage("https://tides.example", status(503));
    assertEquals(503, Http.call("GET", URL).statusCode());
    outage.calls().assertCount(1);

    outage.end();
    assertEquals("04:10", Http.call("GET", URL).body());
    // end
  }

  @Test
  void computedAndTemplates(Cachette net) {
    // snippet computed
    net.stub("POST https://berths.example/v1/bookings")
        .answer(
            computed(
                received ->
                    received.json().at("/vessel/draught").asDouble() > 4.5
                        ? problem(409, "Too deep")
                        : json(new Booking("B-12", "04:10")).status(201)));
    // end
    // snippet template
    net.stub("GET https://tides.example/v1/stations/{station}/tides")
        .answer(
            template(
                "application/json",
                """
                {"station": "${path.station}", "day": "${query.day:-2031-04-02}",
                 "reading": ${count}, "at": "${now}", "level": ${random.1..9}}\
                """));
    // end

    assertEquals(
        409,
        Http.call("POST", "https://berths.example/v1/bookings", "{\"vessel\": {\"draught\": 5}}")
            .statusCode());
    String filled = Http.call("GET", "https://tides.example/v1/stations/Marrow%20Bay/tides").body();
    assertTrue(filled.startsWith("{\"station\": \"Marrow Bay\", \"day\": \"2031-04-02\""), filled);
  }

  @Test
  void aStubBecomesActiveAfterAnother(Cachette net) {
    // snippet after
    Stub create = net.stub("POST https://log.example/v1/entries").answer(status(201));
    net.stub("GET https://log.example/v1/entries").answer(json("[]"));
    net.stub("GET https://log.example/v1/entries").answer(json("[{\"id\": 1}]")).after(create);
    // end
    // snippet collection
    RestCollection bookings =
        net.collection("https://berths.example/v1/bookings")
            .identifiedBy("berth")
            .seed("[{\"berth\": \"B-1\", \"vessel\": \"Skua\"}]");

    Http.call("PATCH", "https://berths.example/v1/bookings/B-1", "{\"vessel\": \"Kittiwake\"}");

    assertEquals("Kittiwake", bookings.items().get(0).path("vessel").asText());
    // end
  }

  @Test
  void checks(Cachette net) {
    // snippet checks
    net.stub("POST https://berths.example/v1/bookings")
        .check(jsonSchema("{\"required\": [\"vessel\"]}"))
        .check(received -> assertEquals("north", received.header("x-desk").orElseThrow()))
        .answer(status(201));
    // end

    Http.call("POST", "https://berths.example/v1/bookings", "{\"vessel\": {}}", "x-desk: north");
  }
}
