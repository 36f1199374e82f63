// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import static dev.cachette.Samples.request;
import static dev.cachette.answer.Answers.json;
import static dev.cachette.answer.Answers.status;
import static dev.cachette.answer.Answers.text;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Desk;
import dev.cachette.answer.Answer;
import dev.cachette.answer.Answers;
import dev.cachette.http.Response;
import dev.cachette.match.RequestPattern;
import dev.cachette.match.Values;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.opentest4j.AssertionFailedError;

class ResponderTest {

  private final Desk desk = new Desk();
  private final Scopes scopes = desk.scopes();

  @Test
  void answersComeInTurnAndTheLastStays() {
    stub("GET /v1/tides", 1, text("a"), text("b"), text("c"));

    assertEquals(List.of("a", "b", "c", "c"), List.of(get(), get(), get(), get()));
  }

  @Test
  void aConnectionThatIsLetThroughHasItsOutcome() {
    ConnectionRules connections = scopes.connections();
    Runnable first = connections.noteConnectionLetThrough("tides.example", 443, "not connected");
    connections.noteConnectionLetThrough("tides.example", 443, "not connected");
    connections.noteConnectionLetThrough("tide.example", 443, "unknown host");
    connections.noteConnectionLetThrough("push.example", 443, "");
    first.run();
    first.run();

    AssertionFailedError silent =
        assertThrows(AssertionFailedError.class, () -> desk.calls().assertCount(1));
    assertEquals(
        """
        Expected exactly 1 call, but there was none.

        No calls were made.

        Let through, so their calls are not seen: tides.example:443, push.example:443.

        Let through, but not connected: tides.example:443, tide.example:443.\
        """,
        silent.getMessage());
    AssertionFailedError listed =
        assertThrows(
            AssertionFailedError.class,
            () -> desk.calls().attempts("https://tides.example").assertNone());
    assertEquals(
        """
        Expected no attempts to reach https://tides.example, but there were 2:

           1. let through, connected
           2. let through, not connected\
        """,
        listed.getMessage());
  }

  @Test
  void theLiteralWinsInEitherOrder() {
    stub("GET /v1/{what}", 1, text("variable"));
    stub("GET /v1/tides", 2, text("literal"));
    assertEquals("literal", get());

    scopes.leaveAll();
    stub("GET /v1/tides", 1, text("literal"));
    stub("GET /v1/{what}", 2, text("variable"));
    assertEquals("literal", get());
  }

  @Test
  void ofTwoEqualsTheLaterWins() {
    stub("GET /v1/{a}", 1, text("earlier"));
    stub("GET /v1/{b}", 2, text("later"));

    assertEquals("later", get());
  }

  @Test
  void theInnerScopeWinsEvenWhenItIsLessSpecific() {
    stub("GET https://tides.example/v1/tides", 1, text("baseline"));
    StubScope inner = scopes.enter(place -> true);
    stub("GET /{+rest}", 2, text("inner"));

    assertEquals("inner", get());
    scopes.leave(inner);
    assertEquals("baseline", get());
  }

  @Test
  void eachScopeHasItsOwnCallsAndTheBaselineStartsAgain() {
    stub("GET /v1/tides", 1, text("first"), text("then"));
    get();
    StubScope test = scopes.enter(place -> true);

    assertEquals("first", get());
    assertEquals(1, scopes.calls().calls().size());
    scopes.leave(test);
    scopes.enter(place -> true);
    assertEquals("first", get());
    assertEquals(1, scopes.calls().calls().size());
  }

  @Test
  void endingAnOuterScopeEndsThoseInIt() {
    StubScope outer = scopes.enter(place -> true);
    StubScope inner = scopes.enter(place -> true);
    get();

    AssertionFailedError failure =
        assertThrows(AssertionFailedError.class, () -> scopes.leave(outer).raise(true, false));
    assertTrue(failure.getMessage().startsWith("Unexpected call: GET "));
    StubScope next = scopes.enter(place -> true);
    stub("GET /v1/tides", 1, text("still there"));
    scopes.leave(inner).raise(true, false);
    assertEquals("still there", get());
    scopes.leave(next).raise(true, false);
  }

  @Test
  void anUnexpectedCallIsExplained() {
    stub("GET https://tides.example/v1/stations/{station}/tides", 30, json("{}"));
    stub("POST https://berths.example/v1/bookings", 41, status(201));
    stub("GET https://customs.example/v1/forms", 52, text(""));
    Response response =
        desk.respond(
            request(
                "POST http://berths.example/v1/bookings/",
                "{\"vessel\":{\"name\":\"Kittiwake\"}}",
                "Authorization: Bearer harbour-secret",
                "Host: berths.example"));

    assertEquals(501, response.status());
    assertEquals("text/plain; charset=utf-8", response.headers().first("content-type").get());
    assertEquals(
        """
        Unexpected call: POST http://berths.example/v1/bookings/ (closest stub "POST \
        https://berths.example/v1/bookings": the origin differs)

        Closest of 3 stubs: "POST https://berths.example/v1/bookings" (BerthDeskTest.java:41)
        It does not match because of the origin, and 1 more condition:
            expected  https://berths.example
            actual    http://berths.example
            cause     the same host, but called by http, not https

        The request

          Authorization: Bearer ****
          {"vessel":{"name":"Kittiwake"}}

        Requirements of "POST https://berths.example/v1/bookings"

          ok   method   POST
          NO   origin   expected  https://berths.example
                        actual    http://berths.example
                        cause     the same host, but called by http, not https
          NO   path     expected  /v1/bookings
                        actual    /v1/bookings/
                        cause     the same path, but called with a trailing slash

        Fix: correct the call, or stub it: \
        net.stub("POST http://berths.example/v1/bookings/").answer(...).
        If several stubs match, the inner scope wins, then the more specific request, then the \
        later declaration.
        """,
        response.text());
    assertEquals(List.of(response.text()), desk.warnings());
  }

  @Test
  void aSingleDifferenceIsNamedInTheFix() {
    stub("GET https://tides.example/v1/tides?day={day}", 30, json("{}"));

    assertTrue(
        explanationOf("GET https://tides.example/v1/tides?Day=2")
            .contains(
                """
                  ok   method      GET
                  ok   origin      https://tides.example
                  ok   path        /v1/tides
                  NO   query day   expected  any value
                                   actual    missing
                                   cause     a parameter with almost the same name, "Day"

                Fix: send query parameter day, or remove it from the stub.
                If several stubs match, the inner scope wins,\
                """));
    assertTrue(
        explanationOf("PUT https://tides.example/v1/tides?day=2")
            .contains("\nFix: correct the call, or stub it: net.stub(\"PUT "));
  }

  @Test
  void withoutSimilarStubsItIsExplained() {
    String none = explanationOf("GET https://tides.example/v1/tides");
    stub("DELETE https://customs.example/forms", 12, status(204));
    String far = explanationOf("GET https://tides.example/v1/tides");

    assertTrue(
        none.startsWith("Unexpected call: ") && none.contains(" (no stubs are declared)\n"), none);
    assertTrue(
        far.contains(
            "\n"
                + "The only stub, \"DELETE https://customs.example/forms\" (BerthDeskTest.java:12),"
                + " is not similar.\n"),
        far);
    assertTrue(far.contains("net.stub(\"GET https://tides.example/v1/tides\").answer(...)"), far);
  }

  @Test
  void aStubWithoutAnAnswerIsNamed() {
    scopes.begin(desk.draft(RequestPattern.of("GET /v1/tides"), 17));

    String explanation = explanationOf("GET https://tides.example/v1/tides");
    IllegalStateException misuse =
        assertThrows(IllegalStateException.class, () -> scopes.leaveAll().raise(true, false));

    assertTrue(
        explanation.contains(
            "\"GET /v1/tides\" (BerthDeskTest.java:17)\n" + "It has no answer yet:"));
    assertEquals(
        "The stub \"GET /v1/tides\" (BerthDeskTest.java:17) has no answer. "
            + "Fix: end its declaration with .answer(...).",
        misuse.getMessage());
    assertEquals(17, misuse.getStackTrace()[0].getLineNumber());
    assertEquals(AssertionFailedError.class, misuse.getSuppressed()[0].getClass());
  }

  @Test
  void theSameUnexpectedCallIsReportedOnceAndCounted() {
    get();
    get();
    desk.respond(request("GET https://tides.example/v1/tides?day=2"));

    AssertionFailedError failure =
        assertThrows(AssertionFailedError.class, () -> scopes.leaveAll().raise(true, false));
    assertEquals(2, desk.warnings().size());
    assertTrue(
        failure
            .getMessage()
            .startsWith(
                """
                2 unexpected calls, the first: GET https://tides.example/v1/tides

                   1. GET https://tides.example/v1/tides  (2 times)
                   2. GET https://tides.example/v1/tides?day=2

                --- 1 ---
                Unexpected call: GET https://tides.example/v1/tides (no stubs are declared)
                """),
        failure::getMessage);
  }

  @Test
  void unexpectedCallsNeedNotFail() {
    get();

    scopes.leaveAll().raise(false, false);
  }

  @Test
  void aLongBodyIsCutAndControlCharactersAreShown() {
    String body = "tide\u0007\n".repeat(50);

    String explanation = desk.respond(request("POST https://tides.example/v1", body)).text();

    assertTrue(explanation.contains("  tide\\u0007\n  tide\\u0007\n"), explanation);
    assertTrue(explanation.contains("  ... (300 bytes in all)\n"), explanation);
  }

  @Test
  void aLongBodyIsCutAroundWhatDiffers() {
    String note = "\"note\":\"" + "calm ".repeat(4000) + "\"";
    String end = note.replace("note", "end");
    desk.stub(
        desk.draft(RequestPattern.of("POST /v1").json("$.vessel.draught", Values.atMost(4.5)), 3),
        text(""));

    String explanation =
        desk.respond(
                request(
                    "POST https://tides.example/v1",
                    "{" + note + ",\"vessel\":{\"draught\":5}," + end + "}"))
            .text();

    assertTrue(explanation.contains("\"vessel\":{\"draught\":5}"), explanation);
    assertTrue(explanation.contains("\n  ... "), explanation);
    assertTrue(explanation.contains(" bytes in all)"), explanation);
    assertTrue(explanation.length() < 2_000, explanation);
  }

  @Test
  void theFixForAnotherTypeIsTheConditionThatWouldHold() {
    desk.stub(
        desk.draft(
            RequestPattern.of("POST /v1")
                .json("$.draught", Values.atMost(4.5))
                .json("$.berth", Values.is("12")),
            3),
        text(""));

    String draught =
        desk.respond(request("POST https://a.example/v1", "{\"draught\":\"4.2\",\"berth\":\"12\"}"))
            .text();
    String berth =
        desk.respond(request("POST https://a.example/v1", "{\"draught\":4.2,\"berth\":12}")).text();

    assertTrue(
        draught.contains(
            "Fix: send a number, or accept a string: .json(\"$.draught\", is(\"4.2\")).\n"),
        draught);
    assertTrue(
        berth.contains("Fix: send a string, or accept a number: .json(\"$.berth\", is(12)).\n"),
        berth);
  }

  @Test
  void aCallBelongsToTheScopeInWhichItArrived() {
    desk.stub("GET /v1/tides", 1, Answers.computed(received -> text("late")));
    StubScope first = scopes.enter(place -> true);
    PendingCall slow =
        desk.responder()
            .receive(request("GET https://tides.example/v1/tides"), ConnectionInfo.ANY)
            .decide();
    scopes.leave(first).raise(true, false);
    scopes.enter(place -> true);

    assertEquals("late", slow.reply().response().orElseThrow().text());

    assertEquals(0, scopes.calls().calls().size());
  }

  @Test
  void callsStandInTheOrderInWhichTheyArrived() {
    desk.stub("GET /v1/{n}", 1, text(""));
    PendingCall slow =
        desk.responder()
            .receive(request("GET https://tides.example/v1/1"), ConnectionInfo.ANY)
            .decide();
    desk.get("GET https://tides.example/v1/2");
    slow.reply();

    assertEquals(
        List.of("/v1/1", "/v1/2"),
        desk.calls().stream().map(call -> call.uri().getPath()).toList());
  }

  @Test
  void aPredicateThatThrowsIsAFailureOrAReason() {
    desk.stub(
        desk.draft(
            RequestPattern.of("GET /v1/{n}")
                .path("n", "7")
                .satisfies("a number", request -> Integer.parseInt(request.text()) > 0),
            3),
        text(""));

    Response reason = desk.respond(request("PUT https://tides.example/v1/7"));
    Response failed = desk.respond(request("GET https://tides.example/v1/7"));

    assertEquals(501, reason.status());
    assertTrue(reason.text().contains("actual    threw java.lang.NumberFormatException"));
    assertTrue(!reason.text().contains("path n"), reason::text);
    assertEquals(500, failed.status());
    assertThrows(AssertionFailedError.class, () -> scopes.leaveAll().raise(false, false));
  }

  @Test
  void secretsAreMaskedWhereverTheyStand() {
    String url = "POST https://id.example/token?api_key=k1&day=2";
    String json = desk.respond(request(url, "{\"client_secret\" : \"s1\", \"day\": \"2\"}")).text();
    String form =
        desk.respond(
                request(
                    url, "password=s1&day=2", "content-type: application/x-www-form-urlencoded"))
            .text();

    for (String text : List.of(json, form)) {
      assertTrue(text.contains("?api_key=****&day=2"), text);
      assertTrue(!text.contains("s1"), text);
    }
    assertTrue(json.contains("{\"client_secret\" : \"****\", \"day\": \"2\"}"), json);
    assertTrue(form.contains("password=****&day=2"), form);
  }

  private String get() {
    return desk.get("GET https://tides.example/v1/tides");
  }

  private String explanationOf(String line) {
    return desk.get(line);
  }

  private void stub(String line, int lineNumber, Answer... answers) {
    desk.stub(line, lineNumber, answers);
  }
}
