// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.Factories.status;
import static dev.cachette.Factories.text;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import org.junit.jupiter.api.Test;

/** The clock that every session has. */
class TestClockTest {

  private static final Instant NOON = Instant.parse("2031-04-02T12:00:00Z");
  private static final String TIDES = "https://tides.example/v1";

  @Test
  void itRunsUntilItIsMovedSetOrStopped() {
    TestClock clock = TestClock.running();
    assertFalse(Duration.between(Instant.now(), clock.instant()).abs().toMinutes() > 1);

    clock.advance(Duration.ofDays(2));
    assertTrue(Duration.between(Instant.now(), clock.instant()).toHours() >= 47);
    clock.set(NOON);
    assertFalse(clock.instant().isBefore(NOON));
    clock.stop();
    Instant stopped = clock.instant();
    assertEquals(stopped, clock.instant());
    clock.advance(Duration.ofHours(-1));
    assertEquals(stopped.minusSeconds(3600), clock.instant());
    clock.resume();
    assertFalse(clock.instant().isBefore(stopped.minusSeconds(3600)));
    Clock there = TestClock.stoppedAt(NOON).withZone(ZoneId.of("+02:00"));
    assertEquals(ZoneOffset.ofHours(2), there.getZone().normalized());
    assertEquals(NOON, there.instant());
    assertThrows(IllegalArgumentException.class, () -> clock.advance(null));
    assertThrows(IllegalArgumentException.class, () -> clock.set(null));
    assertThrows(IllegalArgumentException.class, () -> TestClock.stoppedAt(null));
  }

  @Test
  void aSessionNeedsNoSettingsForIt() throws Exception {
    try (Cachette net = Cachette.open()) {
      net.stub("GET " + TIDES).answer(text("open")).rateLimit(1, Duration.ofHours(1));
      assertEquals(200, Calling.get(TIDES).statusCode());
      assertEquals(429, Calling.get(TIDES).statusCode());

      net.clock().advance(Duration.ofHours(1));

      assertEquals(200, Calling.get(TIDES).statusCode());
    }
  }

  @Test
  void eachScopeBeginsWithTheClockOfTheOuterOne() {
    try (Cachette net = Cachette.open()) {
      net.clock().stop();
      net.clock().set(NOON);
      try (Cachette.Scope test = net.scope()) {
        net.clock().advance(Duration.ofDays(1));
        try (Cachette.Scope inner = net.scope()) {
          net.clock().resume();
          net.clock().advance(Duration.ofDays(30));
        }
        assertEquals(NOON.plus(Duration.ofDays(1)), net.clock().instant());
        net.reset();
        assertEquals(NOON, net.clock().instant());
      }
      assertEquals(NOON, net.clock().instant());
    }
  }

  @Test
  void aClockOfOnesOwnIsLeftAlone() throws Exception {
    TestClock own = TestClock.stoppedAt(NOON);
    try (Cachette net = Cachette.open(Settings.defaults().clock(own))) {
      net.stub("GET " + TIDES).answer(status(204)).from(NOON.plusSeconds(60));
      try (Cachette.Scope test = net.scope()) {
        own.advance(Duration.ofMinutes(1));
        assertEquals(204, Calling.get(TIDES).statusCode());
      }
      assertEquals(NOON.plusSeconds(60), net.clock().instant());
    }
  }
}
