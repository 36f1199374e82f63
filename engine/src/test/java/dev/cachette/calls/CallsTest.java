// SPDX-License-Identifier: Apache-2.0
package dev.cachette.calls;

import static dev.cachette.Samples.request;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Desk;
import dev.cachette.answer.Answers;
import dev.cachette.http.Request;
import dev.cachette.internal.model.DraftStub;
import dev.cachette.match.RequestPattern;
import java.net.URI;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.opentest4j.AssertionFailedError;

class CallsTest {

  private static final String BOOKINGS = "POST https://berths.example/v1/bookings";

  private final Desk desk = new Desk();
  private final Calls calls = desk.calls();

  record Booking(String vessel, int nights) {}

  @Test
  void aCallShowsEverythingOfTheRequestAndItsAnswer() {
    stub("POST https://berths.example/v1/{what}");
    Request request =
        request(
            BOOKINGS + "?day=2%2B3&day=4", "{\"vessel\":\"Kittiwake\",\"nights\":3}", "X-Desk: 7");
    desk.respond(request);

    Call call = calls.only();

    assertEquals("POST", call.method());
    assertEquals(URI.create("https://berths.example/v1/bookings?day=2%2B3&day=4"), call.uri());
    assertEquals(Optional.of("7"), call.header("x-desk"));
    assertEquals(List.of("7"), call.headers("X-DESK"));
    assertEquals("bookings", call.variable("what"));
    assertEquals(List.of("2+3", "4"), call.query().all("day"));
    assertEquals(Optional.of("2+3"), call.query("day"));
    assertEquals("Kittiwake", call.json().at("/vessel").asText());
    assertEquals(new Booking("Kittiwake", 3), call.as(Booking.class));
    assertEquals(201, call.response().status());
    assertEquals("book a berth", call.stub().orElseThrow().name());
    assertEquals("BerthDeskTest.java:41", call.stub().orElseThrow().place());
  }

  @Test
  void aCallSeenThroughALineHasTheVariablesOfThatLine() {
    desk.respond(request("GET https://tides.example/v1/stations/marrow/tides"));

    Call call = matching("GET /v1/stations/{name}/{+rest}").first();

    assertEquals(Map.of("name", "marrow", "rest", "tides"), call.variables());
    assertEquals(Optional.empty(), call.stub());
    var refused = assertThrows(IllegalArgumentException.class, () -> call.variable("station"));
    assertTrue(refused.getMessage().contains("Unknown variable \"station\""));
    assertTrue(refused.getMessage().endsWith("has [name, rest]."));
  }

  @Test
  void countsThatHoldSayNothing() {
    calls.assertNone();
    desk.respond(request(BOOKINGS));
    desk.respond(request("GET https://tides.example/v1/tides"));

    calls.assertCount(2);
    matching(BOOKINGS).assertCount(1);
    matching("DELETE /{+any}").assertNone();
    assertEquals("POST", calls.first().method());
    assertEquals("GET", calls.last().method());
    assertEquals(2, calls.stream().count());
  }

  @Test
  void aWrongCountListsTheCallsAndTheClosestMatch() {
    stub(BOOKINGS);
    desk.respond(request(BOOKINGS));
    desk.respond(request("POST https://berths.example/v1/bookings/"));

    var failure = assertThrows(AssertionFailedError.class, () -> matching(BOOKINGS).assertCount(2));

    assertEquals(
        """
        Expected exactly 2 calls of POST https://berths.example/v1/bookings, but there was 1.

        Closest match:

          POST https://berths.example/v1/bookings/

          NO   path   expected  /v1/bookings
                      actual    /v1/bookings/
                      cause     the same path, but called with a trailing slash

        Matching calls:
           1. POST https://berths.example/v1/bookings  ->  201, by "book a berth" \
        (BerthDeskTest.java:41)
        Other calls:
           1. POST https://berths.example/v1/bookings/  ->  501, unexpected\
        """,
        failure.getMessage());
    assertEquals(
        "exactly 2 calls of POST https://berths.example/v1/bookings",
        failure.getExpected().getValue());
    assertEquals(
        "1 call of POST https://berths.example/v1/bookings", failure.getActual().getValue());
  }

  @Test
  void noCallsAtAllIsExplainedWithLikelyCauses() {
    var failure = assertThrows(AssertionFailedError.class, () -> matching(BOOKINGS).last());

    assertTrue(
        failure
            .getMessage()
            .startsWith(
                "Expected at least 1 call of POST https://berths.example/v1/bookings, but there "
                    + "was none.\n\nNo calls were made. Likely cause:"),
        failure::getMessage);
  }

  @Test
  void oneTooManyIsNotOnly() {
    desk.respond(request(BOOKINGS));
    desk.respond(request(BOOKINGS));

    assertThrows(AssertionFailedError.class, calls::only);
    var failure = assertThrows(AssertionFailedError.class, calls::assertNone);
    assertTrue(failure.getMessage().startsWith("Expected no call, but there were 2."));
  }

  @Test
  void aLongListShowsItsHeadAndItsTail() {
    for (int at = 1; at <= 40; at++) {
      desk.respond(request("GET https://tides.example/v1/" + at));
    }

    List<String> lines = calls.toString().lines().toList();

    assertEquals(17, lines.size());
    assertEquals("     ... 24 more ...", lines.get(12));
    assertTrue(lines.get(16).startsWith("  40. GET https://tides.example/v1/40"), lines.get(16));
  }

  @Test
  void aBodyThatIsNotJsonFailsWithLineAndColumn() {
    desk.respond(request(BOOKINGS, "{\"vessel\": Kittiwake}"));

    var failure = assertThrows(AssertionFailedError.class, () -> calls.only().json());
    assertTrue(
        failure
            .getMessage()
            .startsWith("The body of this call is not valid JSON, line 1, column 12: "),
        failure::getMessage);
    assertTrue(failure.getMessage().contains(BOOKINGS), failure::getMessage);
    assertThrows(AssertionFailedError.class, () -> calls.only().as(Booking.class));
    assertThrows(IllegalArgumentException.class, () -> calls.only().as((Class<?>) null));
    assertThrows(IllegalArgumentException.class, () -> calls.assertCount(-1));
  }

  private Calls matching(String line) {
    return calls.matching(RequestPattern.of(line));
  }

  private void stub(String line) {
    DraftStub draft = desk.draft(RequestPattern.of(line), 41);
    draft.rename("book a berth");
    desk.stub(draft, Answers.status(201));
  }
}
