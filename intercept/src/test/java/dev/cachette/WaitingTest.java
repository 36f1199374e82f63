// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.Factories.computed;
import static dev.cachette.Factories.status;
import static dev.cachette.Factories.text;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.answer.Gate;
import dev.cachette.calls.Call;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.time.Duration;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.opentest4j.AssertionFailedError;

/** Waiting is exact: what a test waits for has happened, and messages agree with the calls. */
class WaitingTest {

  private static final String TIDES = "https://tides.example/v1/tides";
  private static final Duration LONG = Duration.ofSeconds(20);

  private final Cachette net = Cachette.open();
  private final HttpClient client = HttpClient.newHttpClient();

  @AfterEach
  void close() {
    net.close();
  }

  /** Each call is released by the first release after it has arrived. */
  @Test
  void releaseAfterAwaitArrivalAlwaysLetsTheCallGo() throws Exception {
    Gate gate = new Gate();
    net.stub("GET " + TIDES).answer(text("high").heldBy(gate));
    int repeats = Integer.getInteger("waiting.repeats", 300);
    for (int number = 1; number <= repeats; number++) {
      CompletableFuture<HttpResponse<String>> call = get();
      net.calls().awaitArrival(number, LONG);
      gate.release();
      assertEquals(200, call.get(20, TimeUnit.SECONDS).statusCode());
    }
  }

  @Test
  void aCallIsLoggedBeforeItsAnswerIsComputed() throws Exception {
    CountDownLatch go = new CountDownLatch(1);
    net.stub("GET " + TIDES)
        .answer(
            computed(
                received -> {
                  assertTrue(within(go));
                  return text("computed");
                }));

    CompletableFuture<HttpResponse<String>> response = get();
    net.calls().awaitArrival(1, LONG);
    Call call = net.calls().only();
    assertEquals(Call.State.COMPUTING, call.state());
    assertEquals("no answer yet, being computed", call.outcome());
    assertThrows(IllegalStateException.class, call::response);
    assertTrue(net.calls().toString().contains("->  no answer yet, being computed, by \"GET"));
    go.countDown();

    assertEquals("computed", response.get(20, TimeUnit.SECONDS).body());
    net.calls().await(1, LONG);
    assertEquals(Call.State.ANSWERED, call.state());
    assertEquals(200, call.response().status());
  }

  @Test
  void aTimeoutAgreesWithTheListOfCalls() {
    Gate gate = new Gate();
    net.stub("GET " + TIDES).answer(text("high").heldBy(gate));
    get();
    net.calls().awaitArrival(1, LONG);

    String message =
        assertThrows(AssertionFailedError.class, () -> net.calls().await(1, Duration.ofMillis(50)))
            .getMessage();
    assertTrue(
        message.startsWith("Waited 50 ms for at least 1 call, but there was none."), message);
    assertTrue(message.contains("1 call arrived, but not answered completely."), message);
    assertTrue(message.contains("->  200, held by a gate, by"), message);
    gate.open();
    net.calls().await(1, LONG);
    assertFalse(net.calls().toString().contains("held by"), net.calls().toString());
  }

  @Test
  void anInterruptedWaitSaysSo() {
    Thread.currentThread().interrupt();
    String message =
        assertThrows(AssertionFailedError.class, () -> net.calls().await(1, LONG)).getMessage();
    assertTrue(Thread.interrupted());
    assertTrue(message.startsWith("Interrupted after "), message);
    assertTrue(message.contains(" of waiting for at least 1 call"), message);
  }

  /** A condition that is slow to test must not hold up the calls. */
  @Test
  void aSlowConditionHoldsUpNoCall() throws Exception {
    net.stub("GET " + TIDES).answer(status(204));
    CountDownLatch testing = new CountDownLatch(1);
    CountDownLatch done = new CountDownLatch(1);
    get().get(20, TimeUnit.SECONDS);
    CompletableFuture<Void> waiting = new CompletableFuture<>();
    // Not on the common pool, which the client may need.
    Thread waiter =
        new Thread(
            () -> {
              net.calls()
                  .matching(
                      "slow",
                      call -> {
                        testing.countDown();
                        return within(done);
                      })
                  .await(1, LONG);
              waiting.complete(null);
            });
    waiter.setDaemon(true);
    waiter.start();
    assertTrue(within(testing));

    assertEquals(204, get().get(20, TimeUnit.SECONDS).statusCode());
    done.countDown();
    waiting.get(20, TimeUnit.SECONDS);
  }

  private CompletableFuture<HttpResponse<String>> get() {
    return client.sendAsync(
        HttpRequest.newBuilder(URI.create(TIDES)).build(), BodyHandlers.ofString());
  }

  private static boolean within(CountDownLatch latch) {
    try {
      return latch.await(20, TimeUnit.SECONDS);
    } catch (InterruptedException interrupted) {
      Thread.currentThread().interrupt();
      return false;
    }
  }
}
