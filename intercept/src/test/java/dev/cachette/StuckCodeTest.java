// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.text;
import static dev.cachette.match.Values.contains;
import static dev.cachette.match.Values.pattern;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.answer.Answers;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;

/** Code of users that does not end: other calls are answered, and so is close(). */
@Timeout(60)
class StuckCodeTest {

  private static final Settings SETTINGS =
      Settings.defaults().conditionTimeout(Duration.ofSeconds(1));

  private final CountDownLatch end = new CountDownLatch(1);
  private final CountDownLatch begun = new CountDownLatch(1);

  @AfterEach
  void letItEnd() {
    end.countDown();
  }

  /** Does not care about interrupts. */
  private boolean stuck() {
    begun.countDown();
    while (true) {
      try {
        end.await();
        return true;
      } catch (InterruptedException ignored) {
        // As code does that waits in a loop.
      }
    }
  }

  @Test
  void aPredicateThatIsStuckFailsItsCallOnly() throws Exception {
    Cachette net = Cachette.open(SETTINGS);
    net.stub("POST https://berths.example/v1/bookings")
        .satisfies("a free berth", request -> stuck())
        .answer(text("booked"));
    net.stub("GET https://tides.example/v1/tides").answer(text("04:10"));
    CompletableFuture<HttpResponse<String>> booking =
        CompletableFuture.supplyAsync(() -> post("https://berths.example/v1/bookings", "{}"));
    begun.await();

    assertEquals("04:10", Calling.get("https://tides.example/v1/tides").body());
    HttpResponse<String> failed = booking.get();

    assertEquals(500, failed.statusCode());
    assertTrue(
        failed.body().contains("the condition \"a free berth\" of the stub \"POST"), failed::body);
    assertTrue(failed.body().contains("could not be decided in 1 s"), failed::body);
    assertTrue(failed.body().contains("StuckCodeTest.java"), failed::body);
    AssertionError failure = assertThrows(AssertionError.class, net::close);
    assertTrue(failure.getMessage().contains("could not be decided in 1 s"));
    assertTrue(
        failure.getSuppressed()[0].getMessage().contains("StuckCodeTest.stuck(StuckCodeTest.java"));
  }

  @Test
  void moreStuckPredicatesThanWorkersLeaveRoomForOthers() throws Exception {
    Cachette net = Cachette.open(SETTINGS);
    AtomicInteger asked = new AtomicInteger();
    net.stub("POST https://berths.example/v1/bookings")
        .satisfies("a free berth", request -> asked.incrementAndGet() > 0 && stuck())
        .answer(text("booked"));
    net.stub("GET https://tides.example/v1/tides")
        .header("user-agent", pattern("Java.*"))
        .answer(text("04:10"));
    List<CompletableFuture<HttpResponse<String>>> bookings = new ArrayList<>();
    for (int at = 0; at < 50; at++) {
      bookings.add(
          CompletableFuture.supplyAsync(
              () -> post("https://berths.example/v1/bookings", "{}"),
              task -> new Thread(task).start()));
    }

    for (CompletableFuture<HttpResponse<String>> booking : bookings) {
      assertEquals(500, booking.get().statusCode());
    }
    assertEquals("04:10", Calling.get("https://tides.example/v1/tides").body());
    assertEquals(50, asked.get());
    assertThrows(AssertionError.class, net::close);
  }

  @Test
  void closeNamesTheAnswerThatItDoesNotWaitFor() throws Exception {
    Cachette net = Cachette.open(SETTINGS);
    net.stub("GET https://tides.example/v1/tides")
        .answer(Answers.computed(request -> text(stuck() ? "04:10" : "")));
    CompletableFuture<?> tides =
        CompletableFuture.runAsync(
            () ->
                assertThrows(Exception.class, () -> Calling.get("https://tides.example/v1/tides")));
    begun.await();

    AssertionError failure = assertThrows(AssertionError.class, net::close);

    assertTrue(
        failure.getMessage().contains("the answer to GET https://tides.example/v1/tides"),
        failure::getMessage);
    assertTrue(failure.getMessage().contains("StuckCodeTest.stuck(StuckCodeTest.java"));
    tides.get();
  }

  @Test
  void aListenerThatIsStuckHoldsNobodyUp() throws Exception {
    try (Cachette net = Cachette.open(SETTINGS.callListener(call -> stuck()))) {
      net.stub("GET https://tides.example/v1/tides").answer(text("04:10"));

      for (int at = 0; at < 20; at++) {
        assertEquals("04:10", Calling.get("https://tides.example/v1/tides").body());
      }
    }
  }

  @Test
  void aHostileBodyHoldsNobodyUp() throws Exception {
    Cachette net = Cachette.open(SETTINGS);
    net.stub("POST https://berths.example/v1/bookings")
        .body(contains("=").and(pattern(".*.*.*=.*")))
        .answer(text("booked"));
    net.stub("POST https://berths.example/v1/bookings")
        .body(pattern(".*.*.*.*=.*"))
        .answer(text("booked"));

    HttpResponse<String> other = post("https://berths.example/v1/vessels", "x".repeat(20_000));
    HttpResponse<String> hostile = post("https://berths.example/v1/bookings", "x".repeat(20_000));

    assertEquals(501, other.statusCode());
    assertTrue(!other.body().contains("could not be decided"), other::body);
    assertEquals(500, hostile.statusCode());
    assertTrue(hostile.body().contains("could not be decided in 1 s"), hostile::body);
    assertThrows(AssertionError.class, net::close);
  }

  @Test
  void whetherABodyIsSavedHoldsNobodyUp(@TempDir Path folder) throws Exception {
    Cachette net = Cachette.open(SETTINGS);
    Path file = folder.resolve("chart.bin");
    net.stub("POST https://charts.example/bay")
        .satisfies("a chart", request -> request.headers().has("x-stuck") && stuck())
        .saveBodyTo(file.toString())
        .answer(text("never"));
    net.stub("POST https://charts.example/{+bay}")
        .satisfies("any chart", request -> true)
        .saveBodyTo(file.toString())
        .answer(text("saved"));
    net.stub("GET https://tides.example/v1/tides").answer(text("04:10"));
    String chart = "depth ".repeat(200_000);

    assertEquals("saved", post("https://charts.example/bay", chart).body());
    assertEquals(chart, Files.readString(file));
    CompletableFuture<HttpResponse<String>> stuck =
        CompletableFuture.supplyAsync(
            () -> post("https://charts.example/bay", chart, "x-stuck", "true"));
    begun.await();
    assertEquals("04:10", Calling.get("https://tides.example/v1/tides").body());
    assertEquals(500, stuck.get().statusCode());
    assertThrows(AssertionError.class, net::close);
  }

  /** The outcome belongs to the test in which the call arrived. */
  @Test
  void aCallThatIsStillBeingDecidedBelongsToItsTest() throws Exception {
    Cachette net = Cachette.open(Settings.defaults());
    Cachette.Scope scope = net.scope();
    net.stub("POST https://berths.example/v1/bookings")
        .satisfies(
            "none",
            request -> {
              begun.countDown();
              return false;
            })
        .answer(text("booked"));
    CompletableFuture<?> booking =
        CompletableFuture.runAsync(() -> post("https://berths.example/v1/bookings", "{}"));
    begun.await();

    AssertionError failure = assertThrows(AssertionError.class, scope::close);

    assertTrue(failure.getMessage().contains("Unexpected call: POST"), failure::getMessage);
    net.close();
    booking.exceptionally(closed -> null).get();
  }

  private static HttpResponse<String> post(String url, String body, String... headers) {
    HttpRequest.Builder request =
        HttpRequest.newBuilder(URI.create(url)).POST(BodyPublishers.ofString(body));
    try {
      return Calling.send(
          HttpClient.newHttpClient(),
          (headers.length == 0 ? request : request.headers(headers)).build());
    } catch (Exception failed) {
      throw new IllegalStateException(failed);
    }
  }
}
