// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.computed;
import static dev.cachette.answer.Answers.status;
import static org.assertj.core.api.Assertions.assertThat;
import static org.hamcrest.MatcherAssert.assertThat;
import static org.hamcrest.Matchers.iterableWithSize;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.core.type.TypeReference;
import dev.cachette.calls.Call;
import dev.cachette.calls.Calls;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse.BodyHandlers;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.function.Executable;
import org.opentest4j.AssertionFailedError;

/** Assertions on calls of a real client. */
class CallAssertionsTest {

  private static final String TIDES = "GET https://tides.example/{+rest}";
  private static final String BOOKINGS = "POST https://berths.example/v1/bookings";

  private Cachette net;
  private Stub tides;
  private Stub bookings;

  @BeforeEach
  void open() {
    net =
        Cachette.open(
            Settings.defaults()
                .unexpectedCalls(UnexpectedCalls.WARN)
                .unusedStubs(UnusedStubs.IGNORE)
                .maxCalls(4)
                .maxCallBodies(2_000));
    tides = net.stub(TIDES).named("tides").answer(status(204));
    bookings = net.stub(BOOKINGS).named("book").answer(status(201));
  }

  @AfterEach
  void close() {
    net.close();
  }

  @Test
  void numbersOfCalls() throws Exception {
    arrive();
    Calls calls = net.calls(TIDES);

    calls.assertCount(2).assertAtLeast(2).assertAtMost(2).assertBetween(1, 3);
    bookings.calls().assertCount(1);
    assertFailure("Expected exactly 3 calls of GET", () -> calls.assertCount(3));
    assertFailure("Expected at least 3 calls of GET", () -> calls.assertAtLeast(3));
    assertFailure("Expected at most 1 call of GET", () -> calls.assertAtMost(1));
    assertFailure("Expected 3 to 4 calls of GET", () -> calls.assertBetween(3, 4));
    assertFailure("Expected no call of GET", calls::assertNone);
    assertFailure("Expected at least 3 calls of GET", () -> calls.get(2));
    assertEquals("/v1/b", calls.get(1).uri().getPath());
    assertThrows(IllegalArgumentException.class, () -> calls.assertBetween(3, 2));
    assertThrows(IllegalArgumentException.class, () -> calls.get(-1));
  }

  @Test
  void orderAcrossStubs() throws Exception {
    arrive();

    net.calls().assertInOrder(TIDES, BOOKINGS).assertInOrder(BOOKINGS, TIDES);
    net.calls().assertInOrder(tides, tides).assertExactlyInOrder(tides, bookings, tides);
    net.calls().assertExactlyInOrder(TIDES, BOOKINGS, TIDES);
    String message =
        assertFailure(
            "Expected these calls in this order, other calls allowed in between:",
            () -> net.calls().assertInOrder(bookings, tides, bookings));
    assertTrue(message.contains("  ok   the stub \"book\" (Call"), message);
    assertTrue(message.contains("was not called after call 3, but before it: call 2"), message);
    assertFailure("Expected these", () -> net.calls().assertExactlyInOrder(TIDES, BOOKINGS));
    String gap =
        assertFailure("Expected these", () -> net.calls().assertExactlyInOrder(TIDES, TIDES));
    assertTrue(gap.contains("is not the next call after call 1, which is call 3"), gap);
    String never = assertFailure("Expected these", () -> net.calls().assertInOrder("GET /no"));
    assertTrue(never.contains("was never called"), never);
  }

  @Test
  void nothingElseWasCalled() throws Exception {
    arrive();
    net.calls(TIDES).or(BOOKINGS).assertCount(3).assertNoOthers();
    net.calls().assertAnswered();
    assertFailure("Expected no calls other than GET", () -> net.calls(TIDES).assertNoOthers());

    Calling.get("https://customs.example/");

    String message = assertFailure("Expected that every call", () -> net.calls().assertAnswered());
    assertTrue(message.contains("GET https://customs.example/"), message);
  }

  @Test
  void bodiesAsObjects() throws Exception {
    Calling.post(
        "https://berths.example/v1/bookings", "{\"nights\":[1,2],\"vessel\":{\"n\":\"K\"}}");
    Call call = bookings.calls().only();

    assertEquals("K", call.json("$.vessel.n").asText());
    assertEquals("[1,2]", call.json("$.nights[*]").toString());
    assertEquals(2, call.json("/nights/1").asInt());
    Calling.post("https://berths.example/v1/bookings", "[\"a\"]");
    assertEquals(List.of("a"), bookings.calls().last().as(new TypeReference<List<String>>() {}));
    String message = assertFailure("The body of this call has", () -> call.json("$.vesel.n"));
    assertTrue(message.contains("$ has \"vessel\", but no \"vesel\""), message);
  }

  @Test
  void callsAreAnOrdinaryIterable() throws Exception {
    arrive();

    assertThat(net.calls())
        .hasSize(3)
        .extracting(Call::method)
        .containsExactly("GET", "POST", "GET");
    assertThat(net.calls(TIDES), iterableWithSize(2));
  }

  @Test
  void awaitWaitsUntilTheAnswerIsWritten() throws Exception {
    CountDownLatch gate = new CountDownLatch(1);
    net.stub("GET https://slow.example/")
        .answer(
            computed(
                received -> {
                  awaitLatch(gate);
                  return status(204);
                }));
    HttpRequest request = HttpRequest.newBuilder(URI.create("https://slow.example/")).build();
    var answer = HttpClient.newHttpClient().sendAsync(request, BodyHandlers.discarding());

    net.calls().awaitArrival(1, Duration.ofSeconds(20));
    String message =
        assertFailure(
            "Waited 20 ms for at least 1 call of GET https://slow.example/, but there was none.",
            () -> net.calls("GET https://slow.example/").await(1, Duration.ofMillis(20)));
    assertTrue(message.contains("->  no answer yet, being computed, by \"GET https"), message);
    gate.countDown();
    net.calls("GET https://slow.example/").await(1, Duration.ofSeconds(20)).assertCount(1);

    assertEquals(204, answer.get().statusCode());
    assertThrows(IllegalArgumentException.class, () -> net.calls().await(1, Duration.ofMillis(-1)));
  }

  @Test
  void droppedCallsAreReportedIfTheyMatter() throws Exception {
    for (int at = 0; at < 6; at++) {
      Calling.get("https://tides.example/v1/" + at);
    }
    Calls calls = net.calls(TIDES);

    assertEquals(4, calls.stream().count());
    assertEquals("/v1/5", calls.last().uri().getPath());
    calls.assertAtLeast(4).assertInOrder("GET /v1/4", "GET /v1/5");
    net.calls("GET /v1/5").assertAtLeast(1);
    String dropped = "This cannot be decided: the log holds only the last 4 calls, and 2 earlier";
    assertFailure(dropped, () -> calls.assertCount(4));
    assertFailure(dropped, () -> calls.assertCount(6));
    assertFailure(dropped, () -> calls.assertAtLeast(5));
    assertFailure(dropped, () -> calls.assertAtMost(9));
    assertFailure(dropped, calls::first);
    assertFailure(dropped, () -> net.calls("GET /v1/0").assertNone());
    assertFailure(dropped, calls::assertNoOthers);
    assertFailure(dropped, calls::assertAnswered);
    assertFailure(dropped, () -> calls.assertInOrder("GET /v1/0", "GET /v1/5"));
    assertFailure("Expected at most 3 calls", () -> calls.assertAtMost(3));
  }

  @Test
  void largeBodiesAreDroppedFirst() throws Exception {
    Calling.post("https://berths.example/v1/bookings", "x".repeat(1_500));
    Calling.post("https://berths.example/v1/bookings", "y".repeat(1_500));
    Calling.post("https://berths.example/v1/bookings", "z".repeat(5_000));

    assertEquals(1, net.calls().stream().count());
    assertTrue(net.calls().last().text().startsWith("zzz"));
  }

  @Test
  void aCallThatAnotherStubTookIsNamed() throws Exception {
    Stub special = net.stub(BOOKINGS).named("special").header("x-desk", "7").answer(status(201));
    Stub hidden = net.stub("POST https://berths.example/{+rest}").named("wide").answer(status(200));
    arrive();

    String message = assertFailure("Expected exactly 1 call", () -> hidden.calls().assertCount(1));
    assertTrue(message.contains("  matches, but \"book\" (CallAssertionsTest.java:"), message);
    String missed = assertFailure("Expected exactly 1 call", () -> special.calls().assertCount(1));
    assertTrue(missed.contains("NO   header x-desk   expected  \"7\""), missed);
  }

  private static void arrive() throws Exception {
    Calling.get("https://tides.example/v1/a");
    Calling.post("https://berths.example/v1/bookings", "{\"vessel\":\"Kittiwake\"}");
    Calling.get("https://tides.example/v1/b");
  }

  private static void awaitLatch(CountDownLatch gate) {
    try {
      gate.await();
    } catch (InterruptedException interrupted) {
      throw new IllegalStateException(interrupted);
    }
  }

  private static String assertFailure(String start, Executable assertion) {
    var failure = assertThrows(AssertionFailedError.class, assertion);
    assertTrue(failure.getMessage().startsWith(start), failure::getMessage);
    return failure.getMessage();
  }
}
