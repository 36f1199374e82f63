// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.json;
import static dev.cachette.answer.Answers.status;
import static dev.cachette.answer.Answers.text;
import static dev.cachette.answer.Faults.connectionReset;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.answer.AnswerInternals;
import dev.cachette.answer.Gate;
import dev.cachette.answer.Timed;
import java.io.InputStream;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.net.http.HttpTimeoutException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.function.Function;
import java.util.stream.IntStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** When answers come. What is asserted is the order of things and the least time, not the most. */
class TimingTest {

  private static final String TIDES = "https://tides.example/v1";
  private static final Duration LONG = Duration.ofHours(1);
  private static final Duration PATIENCE = Duration.ofSeconds(30);

  private final HttpClient client = HttpClient.newHttpClient();
  private Cachette net;

  @BeforeEach
  void open() {
    net = Cachette.open();
  }

  @AfterEach
  void close() {
    net.close();
  }

  @Test
  void aDelayLastsAtLeastSoLong() throws Exception {
    assertTakes(100, text("high").delayed(Duration.ofMillis(100)));
    assertTakes(50, text("high").delayed(Duration.ofMillis(50), Duration.ofMillis(90)));
    assertTakes(100, text("high").pausedBeforeBody(Duration.ofMillis(100)));
    assertTakes(120, text("high").inPieces(4, Duration.ofMillis(40)));
    assertTakes(150, text("high").inPieces(9, Duration.ofMillis(50), Duration.ofMillis(60)));
    assertTakes(200, text("x".repeat(1_000)).atRate(5_000));
    assertTakes(100, text("high").pausedBeforeBody(Duration.ofMillis(100), Duration.ofMillis(101)));
  }

  private void assertTakes(long millis, Timed<?> answer) throws Exception {
    net.stub("GET " + TIDES).answer((dev.cachette.answer.Answer) answer);
    long begin = System.nanoTime();

    assertEquals(200, Calling.get(TIDES).statusCode());

    long took = (System.nanoTime() - begin) / 1_000_000;
    assertTrue(took >= millis, took + " ms for " + answer);
  }

  @Test
  void aDelayEndsWhenTheClockHasPassedIt() throws Exception {
    net.clock().stop();
    net.stub("GET " + TIDES)
        .answer(text("high").delayed(LONG), connectionReset().delayed(LONG), text("low"));
    CompletableFuture<HttpResponse<String>> loading = send(TIDES);
    net.calls().awaitArrival(1, PATIENCE);

    net.clock().advance(LONG.minusMinutes(1));
    net.clock().advance(LONG.negated());
    assertFalse(loading.isDone());
    net.clock().advance(LONG.plus(LONG));
    assertEquals("high", loading.join().body());

    CompletableFuture<HttpResponse<String>> failing = send(TIDES);
    net.calls().awaitArrival(2, PATIENCE);
    net.clock().advance(LONG);
    assertThrows(CompletionException.class, failing::join);
    assertEquals("low", send(TIDES).join().body());
  }

  @Test
  void aDelayOfAServedOriginEndsByTheClock() {
    try (Cachette served = Cachette.open(Settings.defaults().withoutInterception())) {
      served.stub("GET " + TIDES).answer(text("high").delayed(LONG));
      CompletableFuture<HttpResponse<String>> loading =
          send(served.baseUrlFor("https://tides.example") + "/v1");
      served.calls().awaitArrival(1, PATIENCE);

      served.clock().advance(LONG);

      assertEquals("high", loading.join().body());
    }
  }

  @Test
  void aDelayAfterAGateEndsByTheClock() {
    Gate gate = new Gate();
    net.stub("GET " + TIDES).answer(text("high").heldBy(gate).delayed(LONG));
    CompletableFuture<HttpResponse<String>> loading = send(TIDES);
    net.calls().awaitArrival(1, PATIENCE);
    net.clock().advance(LONG.minusMinutes(1));

    gate.open();
    net.clock().advance(Duration.ofMinutes(2));

    assertEquals("high", loading.join().body());
  }

  @Test
  void impossibleTimesAreRefused() {
    assertThrows(IllegalArgumentException.class, () -> text("").delayed(Duration.ofMillis(-1)));
    assertThrows(IllegalArgumentException.class, () -> text("").delayed(LONG, Duration.ZERO));
    assertThrows(IllegalArgumentException.class, () -> text("").inPieces(0, Duration.ZERO));
    assertThrows(IllegalArgumentException.class, () -> text("").atRate(0));
    assertThrows(IllegalArgumentException.class, () -> text("").heldBy(null));
  }

  @Test
  void headersComeBeforeABodyThatIsHeldUp() throws Exception {
    net.stub("GET " + TIDES).answer(text("high").pausedBeforeBody(LONG));

    HttpResponse<InputStream> response = client.send(request(TIDES), BodyHandlers.ofInputStream());

    assertEquals(200, response.statusCode());
    response.body().close();
  }

  @Test
  void aGateHoldsUntilTheTestOpensIt() {
    Gate gate = new Gate();
    net.stub("GET " + TIDES).answer(json("{\"high\":\"04:10\"}").heldBy(gate));
    CompletableFuture<HttpResponse<String>> loading = send(TIDES);

    net.calls().awaitArrival(1, PATIENCE);
    assertFalse(loading.isDone());
    assertEquals(200, net.calls().only().response().status());

    gate.open();
    assertEquals("{\"high\":\"04:10\"}", loading.join().body());
    assertTrue(gate.isOpen());
  }

  @Test
  void aGateCanLetThoseGoThatItHolds() {
    Gate gate = new Gate();
    net.stub("GET " + TIDES).answer(text("high").heldBy(gate), text("low").heldBy(gate));
    CompletableFuture<HttpResponse<String>> first = send(TIDES);
    while (gate.held() == 0) {
      Thread.onSpinWait();
    }

    gate.release();

    assertEquals("high", first.join().body());
    CompletableFuture<HttpResponse<String>> second = send(TIDES);
    net.calls().awaitArrival(2, PATIENCE);
    assertFalse(second.isDone());
    gate.open();
    assertEquals("low", second.join().body());
  }

  @Test
  void faultCanBeHeldToo() {
    Gate gate = new Gate();
    net.stub("GET " + TIDES).answer(connectionReset().heldBy(gate));
    CompletableFuture<HttpResponse<String>> loading = send(TIDES);
    net.calls().awaitArrival(1, PATIENCE);

    gate.open();

    assertThrows(CompletionException.class, loading::join);
  }

  @Test
  void aThousandHeldCallsHoldNoThread() {
    Gate gate = new Gate();
    net.stub("GET " + TIDES + "/{n}").answer(text("high").heldBy(gate));
    send(TIDES + "/warm");
    net.calls().awaitArrival(1, PATIENCE);
    long before = ours();
    List<CompletableFuture<HttpResponse<String>>> loading =
        IntStream.range(0, 900).mapToObj(n -> send(TIDES + "/" + n)).toList();
    net.calls().awaitArrival(901, PATIENCE);

    assertEquals(before, ours());

    gate.open();
    loading.forEach(each -> assertEquals("high", each.join().body()));
  }

  private static long ours() {
    return Thread.getAllStackTraces().keySet().stream()
        .filter(thread -> thread.getName().startsWith("cachette"))
        .count();
  }

  @Test
  void theCallerCanHangUp() throws Exception {
    Gate gate = new Gate();
    net.stub("GET http://tides.example/v1").answer(text("high").heldBy(gate));
    try (Socket socket = new Socket("tides.example", 80)) {
      socket
          .getOutputStream()
          .write("GET /v1 HTTP/1.1\r\nHost: t\r\n\r\n".getBytes(StandardCharsets.US_ASCII));
      while (gate.held() == 0) {
        Thread.onSpinWait();
      }
    }

    while (gate.held() > 0) {
      Thread.onSpinWait();
    }
    assertFalse(net.calls().only().isDelivered());
  }

  @Test
  void theTestCanEnd() {
    Gate gate = new Gate();
    Cachette.Scope test = net.scope();
    net.stub("GET " + TIDES + "/{+rest}")
        .answer(text("high").heldBy(gate), text("high").delayed(LONG), text("high").atRate(1));
    List<CompletableFuture<HttpResponse<String>>> loading =
        List.of(send(TIDES + "/1"), send(TIDES + "/2"), send(TIDES + "/3"));
    net.calls().awaitArrival(3, PATIENCE);

    test.close();

    loading.forEach(each -> assertThrows(CompletionException.class, each::join));
    assertEquals(0, gate.held());
  }

  @Test
  void closingEndsWhatIsHeldAndDelayed() {
    net.stub("GET " + TIDES).answer(text("high").delayed(LONG));
    CompletableFuture<HttpResponse<String>> loading = send(TIDES);
    net.calls().awaitArrival(1, PATIENCE);

    net.close();

    assertThrows(CompletionException.class, loading::join);
  }

  @Test
  void theClientsOwnTimeoutDecides() {
    net.stub("GET " + TIDES).answer(text("late").delayed(LONG), text("soon"));
    HttpRequest impatient =
        HttpRequest.newBuilder(URI.create(TIDES)).timeout(Duration.ofMillis(200)).build();

    assertThrows(HttpTimeoutException.class, () -> Calling.send(client, impatient));
    assertEquals("soon", send(TIDES).join().body());
  }

  @Test
  void pipelinedRequestsWaitForTheirTurn() throws Exception {
    net.stub("GET http://tides.example/1").answer(text("first").delayed(Duration.ofMillis(50)));
    net.stub("GET http://tides.example/2").answer(status(204));

    String answer =
        Calling.raw(
            "tides.example",
            80,
            "GET /1 HTTP/1.1\r\nHost: t\r\n\r\n"
                + "GET /2 HTTP/1.1\r\nHost: t\r\nConnection: close\r\n\r\n");

    assertTrue(answer.indexOf("first") < answer.indexOf("204 No Content"), answer);
    assertTrue(answer.indexOf("first") > 0, answer);
  }

  private CompletableFuture<HttpResponse<String>> send(String url) {
    return client.sendAsync(request(url), BodyHandlers.ofString());
  }

  private static HttpRequest request(String url) {
    return HttpRequest.newBuilder(URI.create(url)).build();
  }

  /** One stub's answers, each in the same way. */
  @Test
  void timingIsKeptByEveryModifier() throws Exception {
    Function<Duration, Long> millis = Duration::toMillis;
    var answer = text("high").delayed(Duration.ofMillis(30)).status(201).header("x-desk", "7");

    assertEquals(30L, millis.apply(AnswerInternals.timing(answer).before().least()));
    assertTakes(30, answer.status(200));
  }
}
