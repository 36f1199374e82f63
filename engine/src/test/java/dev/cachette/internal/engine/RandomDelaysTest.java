// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Desk;
import dev.cachette.Samples;
import dev.cachette.answer.Answers;
import java.time.Clock;
import java.time.Duration;
import java.time.ZoneOffset;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

class RandomDelaysTest {

  private static final Duration LEAST = Duration.ofMillis(20);
  private static final Duration MOST = Duration.ofMillis(90);

  @Test
  void delaysAreThoseOfTheSeed() {
    Set<List<Duration>> different = new HashSet<>();
    for (long seed = 0; seed < 50; seed++) {
      List<Duration> delays = delays(seed);

      assertEquals(delays, delays(seed));
      assertTrue(
          delays.stream().allMatch(it -> it.compareTo(LEAST) >= 0 && it.compareTo(MOST) <= 0),
          delays::toString);
      different.add(delays);
    }
    assertEquals(50, different.size());
  }

  private static List<Duration> delays(long seed) {
    Desk desk =
        new Desk(new ScopeSettings(Clock.fixed(Desk.NOW, ZoneOffset.UTC), seed, 100_000, 1 << 28));
    desk.stub("GET https://tides.example/v1", 1, Answers.text("high").delayed(LEAST, MOST));
    return Stream.generate(
            () ->
                desk.responder()
                    .receive(Samples.request("GET https://tides.example/v1"), ConnectionInfo.ANY)
                    .decide()
                    .reply()
                    .schedule()
                    .before())
        .limit(10)
        .toList();
  }
}
