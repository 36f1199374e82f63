// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.status;
import static dev.cachette.answer.Answers.text;
import static dev.cachette.answer.Faults.connectionRefused;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNotEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.net.http.HttpResponse;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

/** Rate limits, slow starts and random failures. */
class ServiceBehaviorTest {

  private static final String TIDES = "http://tides.example/v1";

  @Test
  void aRateLimitIsReachedAndResets() throws Exception {
    TestClock clock = TestClock.stoppedAt(Instant.parse("2031-04-02T06:00:00Z"));
    try (Cachette net = Cachette.open(Settings.defaults().clock(clock))) {
      net.stub("GET " + TIDES)
          .answer(text("first"), text("second"), text("third"))
          .rateLimit(2, Duration.ofMinutes(1));

      assertEquals("first", get().body());
      assertEquals("second", get().body());
      clock.advance(Duration.ofMillis(500));
      HttpResponse<String> refused = get();
      assertEquals(429, refused.statusCode());
      assertEquals("60", refused.headers().firstValue("retry-after").orElseThrow());

      clock.advance(Duration.ofMillis(59_500));
      assertEquals("third", get().body());
    }
  }

  @Test
  void aServiceIsUpAfterItsFirstCalls() throws Exception {
    try (Cachette net = Cachette.open()) {
      Stub stub = net.stub("GET " + TIDES).answer(text("up")).failFirst(2);

      for (int test = 0; test < 2; test++) {
        try (Cachette.Scope scope = net.scope()) {
          assertEquals(503, get().statusCode());
          assertEquals(503, get().statusCode());
          assertEquals("up", get().body());
          stub.calls().assertCount(3);
        }
      }
    }
  }

  @Test
  void aFlakyServiceFailsTheSameBySeed() throws Exception {
    List<Integer> first = statuses(11);

    assertEquals(first, statuses(11));
    assertNotEquals(first, statuses(12));
    assertTrue(first.contains(200) && first.contains(502) && first.contains(503), first::toString);
  }

  private static List<Integer> statuses(long seed) throws Exception {
    List<Integer> statuses = new ArrayList<>();
    try (Cachette net = Cachette.open(Settings.defaults().seed(seed))) {
      net.stub("GET " + TIDES)
          .named("tides")
          .answer(text("ok"))
          .flaky(0.5, status(502), status(503));
      for (int call = 0; call < 30; call++) {
        statuses.add(get().statusCode());
      }
      long failed = statuses.stream().filter(status -> status != 200).count();
      String note = String.join("", net.notes());
      assertTrue(note.startsWith(failed + " of 30 calls of the flaky stub \"tides\""), note);
      assertTrue(note.endsWith("Settings.defaults().seed(" + seed + ")."), note);
    }
    return statuses;
  }

  @Test
  void misuseIsReported() {
    try (Cachette net = Cachette.open()) {
      Stub stub = net.stub("GET " + TIDES).answer(text("ok"));

      assertThrows(IllegalArgumentException.class, () -> stub.flaky(1.5));
      assertThrows(IllegalArgumentException.class, () -> stub.flaky(Double.NaN));
      assertThrows(IllegalArgumentException.class, () -> stub.rateLimit(0, Duration.ofSeconds(1)));
      assertThrows(IllegalArgumentException.class, () -> stub.rateLimit(1, Duration.ZERO));
      assertThrows(IllegalArgumentException.class, () -> stub.failFirst(0));
      var early =
          assertThrows(IllegalArgumentException.class, () -> stub.flaky(0.5, connectionRefused()));
      assertTrue(early.getMessage().contains("before there is a request"), early::getMessage);
    }
  }

  private static HttpResponse<String> get() throws Exception {
    return Calling.get(TIDES);
  }
}
