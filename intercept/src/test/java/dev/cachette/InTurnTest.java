// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.status;
import static dev.cachette.answer.Answers.text;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.net.http.HttpResponse;
import java.time.Duration;
import java.time.Instant;
import java.util.regex.Pattern;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.opentest4j.AssertionFailedError;

/** How often and when a stub answers, and which one does, with a real client. */
class InTurnTest {

  private static final Instant NOON = Instant.parse("2031-04-02T12:00:00Z");
  private static final String TIDES = "GET https://tides.example/";

  private final TestClock clock = TestClock.stoppedAt(NOON);
  private Cachette net;

  @BeforeEach
  void open() {
    net =
        Cachette.open(
            Settings.defaults()
                .clock(clock)
                .unexpectedCalls(UnexpectedCalls.WARN)
                .unusedStubs(UnusedStubs.FAIL));
  }

  @AfterEach
  void close() {
    net.close();
  }

  @Test
  void theLastStaysOrTheFirstComesAgain() throws Exception {
    Stub stub = net.stub(TIDES).answer(text("a"), text("b"));
    assertEquals("a b b b", four());

    try (Cachette.Scope scope = net.scope()) {
      stub.looping();
      assertEquals("a b a b", four());
    }
  }

  @Test
  void aUsedUpStubLeavesTheCallToTheNextOne() throws Exception {
    net.stub(TIDES).answer(text("z"));
    net.stub(TIDES).answer(text("a"), text("b")).onceEach();

    assertEquals("a b z z", four());
  }

  @Test
  void timesAndSingleCalls() throws Exception {
    net.stub(TIDES).answer(text("z"));
    net.stub(TIDES).answer(text("a")).onCall(2, text("x")).times(3);

    assertEquals("a x a z", four());
  }

  @Test
  void theOnlyStubThatMatchesIsReportedAsUsedUp() throws Exception {
    net.stub(TIDES).named("tides").answer(text("a")).times(1);
    get();

    HttpResponse<String> response = Calling.get("https://tides.example/");

    assertEquals(501, response.statusCode());
    String expected =
        """
        It is used up:
            expected  at most 1 call
            actual    already used up by 1 earlier call
        """;
    assertTrue(response.body().contains(expected), response.body());
  }

  @Test
  void aStubIsLiveForATime() throws Exception {
    net.stub(TIDES).named("open").answer(text("open")).from(NOON.plusSeconds(60));
    net.stub(TIDES).named("early").answer(text("early")).until(NOON.plusSeconds(30));

    assertEquals("early", get());
    clock.advance(Duration.ofSeconds(30));
    assertTrue(get().contains("a call at or after 2031-04-02T12:01:00Z"));
    clock.advance(Duration.ofSeconds(30));
    assertEquals("open", get());
  }

  @Test
  void aStubIsLiveAfterAnother() throws Exception {
    Stub create = net.stub("POST https://berths.example/").named("create").answer(status(201));
    net.stub("GET https://berths.example/").answer(text("none"));
    net.stub("GET https://berths.example/").answer(text("B-12")).after(create);

    assertEquals("none", Calling.get("https://berths.example/").body());
    Calling.post("https://berths.example/", "{}");
    assertEquals("B-12", Calling.get("https://berths.example/").body());
  }

  @Test
  void theBaselineStartsAgainInEachTest() throws Exception {
    Stub create = net.stub("POST https://berths.example/").answer(status(201));
    net.stub("GET https://berths.example/").answer(text("B-12")).after(create);
    Calling.post("https://berths.example/", "{}");

    try (Cachette.Scope scope = net.scope()) {
      assertEquals(501, Calling.get("https://berths.example/").statusCode());
    }
    Calling.post("https://berths.example/", "{}");
    assertEquals(200, Calling.get("https://berths.example/").statusCode());
  }

  @Test
  void impossibleOrdersAreRefused() {
    Stub stub = net.stub(TIDES).answer(status(204));

    assertThrows(IllegalArgumentException.class, () -> stub.times(0));
    assertThrows(IllegalArgumentException.class, () -> stub.onCall(0, status(204)));
    assertThrows(IllegalArgumentException.class, () -> stub.onCall(1, null));
    assertThrows(IllegalArgumentException.class, () -> stub.after(null));
    assertThrows(IllegalArgumentException.class, () -> stub.after(stub));
    assertThrows(IllegalStateException.class, () -> stub.looping().onceEach());
    assertThrows(IllegalArgumentException.class, () -> stub.from(NOON).until(NOON));
    assertThrows(AssertionFailedError.class, net::reset);
  }

  @Test
  void unusedStubsAreReported() throws Exception {
    net.stub(TIDES).named("used").answer(text("a"));
    get();
    net.stub("GET /v1").named("unused").answer(text("b"));

    var failure = assertThrows(AssertionFailedError.class, net::reset);

    String expected =
        """
        1 unused stub:

          "unused" (InTurnTest.java:\
        """;
    assertTrue(failure.getMessage().startsWith(expected), failure::getMessage);
  }

  @Test
  void aStubThatCanNeverBeReachedIsReportedWithBothPlaces() throws Exception {
    net.stub(TIDES + "{a}?day").named("hidden").header("x-desk", "7").answer(text("a"));
    net.stub(TIDES + "{b}?day").named("winner").header("x-desk", "7").answer(text("b"));
    net.stub(TIDES + "{c}").named("wider").answer(text("c"));
    Calling.get("https://tides.example/north");

    var failure = assertThrows(AssertionFailedError.class, net::reset);

    String expected =
        "\n  \"hidden\" \\(InTurnTest.java:\\d+\\)\n"
            + "    unreachable: \"winner\" \\(InTurnTest.java:\\d+\\) always wins\n";
    assertTrue(Pattern.compile(expected).matcher(failure.getMessage()).find(), failure::getMessage);
    assertTrue(failure.getMessage().startsWith("2 unused stubs:"));
  }

  @Test
  void aStubThatAnotherOnlyWinsForATimeCanBeReached() {
    net.stub(TIDES).named("second").answer(text("a"));
    net.stub(TIDES).named("first").answer(text("b")).onceEach();

    var failure = assertThrows(AssertionFailedError.class, net::reset);
    assertTrue(!failure.getMessage().contains("never be reached"), failure::getMessage);
  }

  private static String four() throws Exception {
    return get() + " " + get() + " " + get() + " " + get();
  }

  private static String get() throws Exception {
    return Calling.get("https://tides.example/").body();
  }
}
