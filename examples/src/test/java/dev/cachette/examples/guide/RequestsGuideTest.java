// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.guide;

import static dev.cachette.Factories.*;
import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.cachette.Cachette;
import dev.cachette.UnusedStubs;
import dev.cachette.junit.InterceptHttp;
import dev.cachette.match.Condition;
import dev.cachette.match.RequestPattern;
import java.time.LocalDate;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** The snippets of docs/guide/requests.md; GuideTest compares them with the page. */
@InterceptHttp(unusedStubs = UnusedStubs.IGNORE)
class RequestsGuideTest {

  private static final String BOOKINGS = "https://berths.example/v1/bookings";

  @Test
  void requestLines(Cachette net) {
    // snippet request-lines
    net.stub("GET https://tides.example/v1/stations/{station}/tides").answer(status(204));
    net.stub("GET https://tides.example/v1/charts/{+rest}").answer(status(204));
    net.stub("GET https://{region}.tides.example/v1/tides").answer(status(204));
    net.stub("GET https://*.berths.example/v1/berths").answer(status(204));
    net.stub("GET,HEAD /health").answer(status(204));
    net.stub("* https://customs.example/{+rest}").answer(status(204));
    net.stub("GET https://tides.example/v1/tides?day={day}&unit=m").answer(status(204));
    // end

    Http.call("GET", "https://north.tides.example/v1/tides");
    assertEquals(
        "north", net.calls("GET https://{region}.tides.example/{+x}").only().variable("region"));
    Http.call("BERTH", "https://customs.example/v1");
    Http.call("HEAD", "http://any.example/health");
  }

  @Test
  void conditions(Cachette net) {
    // snippet conditions
    net.stub("GET https://tides.example/v1/stations/{station}/tides")
        .path("station", pattern("[a-z-]+"))
        .query("day", after(LocalDate.of(2031, 1, 1)))
        .query("level", list("high", "low"))
        .header("accept", contains("json"))
        .cookie("desk", oneOf("north", "south"))
        .bearer(startsWith("t-"))
        .answer(json("{\"high\": [\"04:10\"]}"));
    // end

    Http.call(
        "GET",
        "https://tides.example/v1/stations/marrow/tides?day=2031-04-02&level=high&level=low",
        "",
        "accept: application/json",
        "cookie: desk=north",
        "authorization: Bearer t-1");
    net.calls().assertAnswered();
  }

  @Test
  void values(Cachette net) {
    // snippet values
    net.stub("POST " + BOOKINGS)
        .header("x-desk", is("north").ignoringCase())
        .header("x-trace", missing())
        .query("berth", each(pattern("B-[0-9]+")))
        .json("$.vessel.draught", atMost(4.5))
        .json("$.nights", between(1, 14))
        .json("$.vessel.name", startsWith("K").or(is("Skua")))
        .answer(status(201));
    // end

    Http.call(
        "POST",
        BOOKINGS + "?berth=B-1&berth=B-2",
        "{\"vessel\": {\"name\": \"Skua\", \"draught\": 4.5}, \"nights\": 2}",
        "x-desk: North");
    net.calls().assertAnswered();
  }

  @Test
  void jsonBodies(Cachette net) {
    String booking = "{\"id\": 7, \"vessel\": {\"name\": \"Kittiwake\"}, \"tags\": [\"a\", \"b\"]}";
    // snippet json
    Condition whole =
        sameJson("{\"vessel\": {\"name\": \"Kittiwake\"}, \"tags\": [\"b\", \"a\"]}")
            .ignoring("$.id")
            .anyOrder();
    Condition part = containsJson("{\"vessel\": {\"name\": \"Kittiwake\"}}");
    Condition byPath = jsonAt("$.tags[?@ == 'a']", present());
    Condition byPointer = jsonAt("/vessel/name", "Kittiwake");
    Condition bySchema = jsonSchema("{\"required\": [\"vessel\"]}");
    // end

    net.stub("POST /{+x}").where(whole, part, byPath, byPointer, bySchema).answer(status(201));
    assertEquals(201, Http.call("POST", BOOKINGS, booking).statusCode());
  }

  @Test
  void otherBodies(Cachette net) {
    // snippet bodies
    net.stub("PUT https://customs.example/v1/cargo")
        .body(sameXml("<cargo xmlns='urn:cargo' tons='12'/>"))
        .body(xpath("/c:cargo/@tons", atMost(20), Map.of("c", "urn:cargo")))
        .answer(status(204));
    net.stub("POST https://customs.example/soap")
        .where(soap().version("1.2").element("urn:customs", "Declare"))
        .answer(status(204));
    net.stub("POST https://id.example/token")
        .form("grant_type", "client_credentials")
        .answer(status(204));
    net.stub("POST https://customs.example/v1/manifests")
        .body(part("manifest").fileName("cargo.csv").content(textBody(startsWith("rope,"))))
        .answer(status(201));
    net.stub("POST https://vessels.example/graphql")
        .where(graphql().query().operation("VesselByName").variable("name", "Kittiwake"))
        .answer(status(200));
    // end

    Http.call(
        "PUT", "https://customs.example/v1/cargo", "<c:cargo xmlns:c='urn:cargo' tons=\"12\"/>");
    net.calls().assertAnswered();
  }

  @Test
  void combinedAndShared(Cachette net) {
    // snippet combined
    Condition fromTheDesk = bearer(present()).or(cookie("desk", present()));
    RequestPattern ours =
        RequestPattern.of("POST " + BOOKINGS)
            .where(fromTheDesk, not(header("x-test", present())))
            .satisfies("an even path", request -> request.uri().path().length() % 2 == 0);

    net.stub(ours).named("book from the desk").answer(status(201));
    // end

    Http.call("POST", BOOKINGS + "", "{}", "cookie: desk=north");
    // snippet combined-calls
    net.calls(ours).assertCount(1);
    net.calls("POST " + BOOKINGS).where(fromTheDesk).assertCount(1);
    // end
  }
}
