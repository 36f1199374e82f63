// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import static dev.cachette.Samples.request;
import static dev.cachette.answer.Answers.text;
import static dev.cachette.match.Bodies.sameJson;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Desk;
import dev.cachette.internal.model.Place;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.opentest4j.AssertionFailedError;

/** Explanations that depend on what happened before and after the call. */
class ExplainedTest {

  private static final String BOOKINGS = "https://berths.example/v1/bookings";

  private final Desk desk = new Desk();

  @Test
  void theFirstLineNamesTheCallTheClosestStubAndTheReason() {
    desk.stub("GET https://berths.example/v1/bookings?day={day}", 7, text("x"));

    assertEquals(
        "Unexpected call: GET https://berths.example/v1/bookings (closest stub \"GET"
            + " https://berths.example/v1/bookings?day={day}\": query parameter day is missing)",
        desk.get("GET " + BOOKINGS).lines().findFirst().orElseThrow());
  }

  @Test
  void theClosestIsFoundAmongManyThatAreEquallyClose() {
    desk.stub("PUT " + BOOKINGS, 7, text("x"));
    for (int at = 0; at < 1_000; at++) {
      desk.stub("PUT https://berths.example/v1/vessels", 8, text("x"));
    }

    assertTrue(
        desk.get("GET " + BOOKINGS).contains("Closest of 1001 stubs: \"PUT " + BOOKINGS + "\""));
  }

  @Test
  void aStubThatWasDeclaredAfterTheCallIsNamed() {
    desk.get("GET " + BOOKINGS);
    desk.stub("GET " + BOOKINGS, 12, text("late"));

    String message =
        assertThrows(AssertionFailedError.class, () -> desk.scopes().leaveAll().raise(true, false))
            .getMessage();
    List<String> lines = message.lines().toList();
    assertTrue(
        lines.get(2).startsWith("The stub \"GET " + BOOKINGS + "\" (BerthDeskTest.java:12)"));
    assertTrue(lines.get(2).endsWith("declared after the call. Fix: declare it before."), message);
  }

  @Test
  void aStubOfATestThatIsOverIsNamed() {
    StubScope test = desk.scopes().enter(place -> true);
    desk.stub("GET " + BOOKINGS, 12, text("over"));
    desk.scopes().leave(test);

    String explanation = desk.get("GET " + BOOKINGS);
    assertTrue(explanation.contains("(BerthDeskTest.java:12) matches it, but its test has ended"));
    assertFalse(desk.get("GET https://tides.example/v1").contains("its test has ended"));
  }

  @Test
  void hostsThatAreUsuallyLetThroughGetThatFixToo() {
    desk.scopes().letThrough(LetThrough.of("*.logs.example", new Place(frame(9))));

    String metrics = desk.get("POST https://push.metrics.example/v1");
    assertTrue(
        metrics.contains(
            "net.letThrough(\"push.metrics.example\") (let through *.logs.example,"
                + " BerthDeskTest.java:9)"),
        metrics);
    assertFalse(desk.get("POST https://tides.example/v1").contains("letThrough"));
  }

  @Test
  void everyNarrowingShowsTheClosestCall() {
    desk.stub("* /{+path}", 1, text("x"));
    desk.respond(request("POST " + BOOKINGS, "{\"a\":1}", "x-desk: south"));

    String byHeader =
        assertThrows(
                AssertionFailedError.class,
                () -> desk.calls().header("x-desk", "north").assertCount(1))
            .getMessage();
    assertTrue(byHeader.contains("Closest match:\n\n  POST " + BOOKINGS), byHeader);
    assertTrue(byHeader.contains("actual    \"south\""), byHeader);
    String byBody =
        assertThrows(
                AssertionFailedError.class,
                () -> desk.calls().body(sameJson("{\"a\":2}")).assertCount(1))
            .getMessage();
    assertTrue(byBody.contains("at $.a"), byBody);
  }

  @Test
  void listsShowWhatTellsCallsApart() {
    desk.stub("* /{+path}", 1, text("x"));
    desk.respond(request("POST " + BOOKINGS, "{\"a\":1,\"b\":2,\"password\":\"hunter2\"}"));
    desk.respond(request("POST " + BOOKINGS, "{\"a\":1,\"b\":3,\"password\":\"hunter2\"}"));
    desk.respond(request("GET " + BOOKINGS, "", "x-desk: south"));
    desk.respond(request("GET " + BOOKINGS, "", "x-desk: north"));
    desk.respond(request("PUT " + BOOKINGS, "", "authorization: Bearer t-1234567"));
    desk.respond(request("PUT " + BOOKINGS, ""));
    desk.respond(request("DELETE " + BOOKINGS, ""));

    String list = desk.calls().toString();
    for (String part :
        List.of(
            "1. POST " + BOOKINGS + "  $.b 2  ->",
            "2. POST " + BOOKINGS + "  $.b 3  ->",
            "3. GET " + BOOKINGS + "  x-desk: south  ->",
            "4. GET " + BOOKINGS + "  x-desk: north  ->",
            "5. PUT " + BOOKINGS + "  authorization: Bearer ****  ->",
            "6. PUT " + BOOKINGS + "  no authorization  ->",
            "7. DELETE " + BOOKINGS + "  ->")) {
      assertTrue(list.contains(part), list);
    }
  }

  private static StackTraceElement frame(int line) {
    return new StackTraceElement("BerthDeskTest", "test", "BerthDeskTest.java", line);
  }
}
