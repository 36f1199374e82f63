// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import static dev.cachette.answer.Answers.text;
import static dev.cachette.match.Values.contains;
import static dev.cachette.match.Values.each;
import static dev.cachette.match.Values.pattern;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Desk;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.http.Uri;
import dev.cachette.match.Bodies;
import dev.cachette.match.RequestPattern;
import java.time.Clock;
import java.time.Duration;
import java.time.ZoneOffset;
import java.util.concurrent.atomic.AtomicLong;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import org.opentest4j.AssertionFailedError;

/** Conditions that would take minutes or years with what a caller sends. */
class ConditionTimeoutTest {

  private static final String LINE = "POST https://berths.example/v1/bookings";
  private static final String A = "a".repeat(8_000);
  private static final String SLOW = ".*.*.*.*=";
  private static final String LONG = "x".repeat(20_000);

  /** A clock that goes on by 20 ms whenever it is read. */
  private final AtomicLong reads = new AtomicLong();

  private final Desk desk =
      new Desk(
          new ScopeSettings(
              Clock.fixed(Desk.NOW, ZoneOffset.UTC),
              0,
              100,
              1 << 28,
              1 << 20,
              call -> {},
              Onlooker.NONE,
              false,
              false,
              true,
              Duration.ofSeconds(2),
              () -> reads.incrementAndGet() * 20_000_000));

  static Stream<Arguments> hostile() {
    String deep = "{\"a\":".repeat(200) + "1" + "}".repeat(200);
    String many =
        IntStream.range(0, 3_000).mapToObj(at -> "{\"n\":" + at + "}").toList().toString();
    String others =
        IntStream.range(5_000, 8_000).mapToObj(at -> "{\"n\":" + at + "}").toList().toString();
    RequestPattern bookings = RequestPattern.of(LINE);
    return Stream.of(
        Arguments.of(bookings.body(Bodies.textBody(pattern(".*.*.*.*=.*"))), post(LONG)),
        Arguments.of(
            bookings.body(Bodies.textBody(contains("x").and(pattern("(x+x+)+y")))), post(LONG)),
        Arguments.of(bookings.header("x-note", pattern(SLOW)), post("", "x-note", A)),
        Arguments.of(bookings.header("x-note", pattern(SLOW)), post("", "x-note", A)),
        Arguments.of(bookings.header("x-note", each(pattern(SLOW))), post("", "x-note", A)),
        Arguments.of(bookings.cookie("c", pattern(SLOW)), post("", "cookie", "c=" + A)),
        Arguments.of(bookings.form("f", pattern(SLOW)), form("f=" + A)),
        Arguments.of(bookings.json("$.q", pattern(SLOW)), post("{\"q\":\"" + A + "\"}")),
        Arguments.of(
            bookings.json("$.q[?match(@, '" + SLOW + "')]", contains("a")),
            post("{\"q\":[\"" + A + "\"]}")),
        Arguments.of(
            bookings.json("$.q[?search(@, '" + SLOW + "')]", contains("a")),
            post("{\"q\":[\"" + A + "\"]}")),
        Arguments.of(bookings.json("$..*..*..*..*..*..*", contains("a")), post(deep)),
        Arguments.of(bookings.json("$[?count($[?@.n > 0]) > 5000]", contains("a")), post(many)),
        Arguments.of(bookings.body(Bodies.sameJson(others).anyOrder()), post(many)),
        Arguments.of(bookings.body(Bodies.sameJson(others)), post(many)),
        Arguments.of(
            bookings.body(
                Bodies.jsonSchema("{\"properties\":{\"q\":{\"pattern\":\"" + SLOW + "\"}}}")),
            post("{\"q\":\"" + A + "\"}")),
        Arguments.of(
            RequestPattern.of("POST https://berths.example/{a}-{b}-{c}-{d}-{e}x"),
            to("/" + "-".repeat(3_000))));
  }

  @ParameterizedTest
  @MethodSource("hostile")
  void aCallFailsIfItsStubCannotBeFoundInTime(RequestPattern pattern, Request request) {
    desk.stub(desk.draft(pattern, 7), text("ok"));

    Response response = desk.respond(request);

    assertEquals(500, response.status(), response::text);
    assertTrue(response.text().contains("could not be decided in 2 s"), response::text);
    assertTrue(response.text().contains("BerthDeskTest.java:7"), response::text);
    AssertionFailedError failure =
        assertThrows(AssertionFailedError.class, () -> desk.scopes().leaveAll().raise(true, true));
    assertTrue(failure.getMessage().contains("could not be decided in 2 s"));
  }

  @ParameterizedTest
  @MethodSource("hostile")
  void itsExplanationSaysWhatCouldNotBeDecided(RequestPattern pattern, Request request) {
    desk.stub(desk.draft(pattern, 7), text("ok"));

    Response response =
        desk.respond(new Request("PUT", request.uri(), request.headers(), request.body()));

    assertEquals(pattern.conditions().isEmpty() ? 500 : 501, response.status());
    assertTrue(response.text().contains("could not be decided in 2 s"), response::text);
  }

  @Test
  void bodiesAreNotReadForStubsOfOtherCalls() {
    desk.stub(
        desk.draft(RequestPattern.of(LINE).body(Bodies.textBody(pattern(".*.*.*.*=.*"))), 7),
        text("ok"));
    long before = reads.get();

    Response response =
        desk.respond(
            new Request(
                "POST",
                Uri.parse("https://berths.example/v1/vessels"),
                Headers.none(),
                Body.of(LONG)));

    assertTrue(
        response
            .text()
            .contains("1 more condition was not tested, because the request line differs."),
        response::text);
    assertFalse(response.text().contains("could not be decided"), response::text);
    assertTrue(reads.get() - before < 100);
  }

  @Test
  void aRegularExpressionThatRunsOutOfStackIsNamed() {
    desk.stub(
        desk.draft(RequestPattern.of(LINE).body(Bodies.textBody(pattern("(x|y|(z))*"))), 7),
        text("ok"));

    Response response = desk.respond(post(LONG.repeat(5)));

    assertEquals(500, response.status());
    assertTrue(
        response.text().contains("\"(x|y|(z))*\" needs too much stack for a text of 100,000"),
        response::text);
  }

  @Test
  void deepXmlIsRefused() {
    desk.stub(
        desk.draft(RequestPattern.of(LINE).xpath("//a//a//a//a[. = 'b']", contains("b")), 7),
        text("ok"));

    Response response = desk.respond(post("<a>".repeat(100_000) + "</a>".repeat(100_000)));

    assertEquals(501, response.status());
    assertTrue(
        response.text().contains("its elements are nested more than 1000 levels deep"),
        response::text);
  }

  private static Request post(String body, String... header) {
    Headers headers = Headers.none();
    return new Request(
        "POST",
        Uri.parse("https://berths.example/v1/bookings"),
        header.length == 0 ? headers : headers.with(header[0], header[1]),
        Body.of(body));
  }

  private static Request form(String body) {
    return post(body, "content-type", "application/x-www-form-urlencoded");
  }

  private static Request to(String path) {
    return new Request(
        "POST", Uri.parse("https://berths.example" + path), Headers.none(), Body.of(""));
  }
}
