// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.template;

import java.time.Clock;
import java.util.HashMap;
import java.util.Map;
import java.util.Random;
import java.util.UUID;

/** Counters and random numbers of templates in one scope. Thread-safe. */
public final class TemplateState {

  private final Clock clock;
  private final Random random;
  private final Map<String, Integer> counters = new HashMap<>();

  /** Creates counters at zero, and a generator with this seed. */
  public TemplateState(Clock clock, long seed) {
    this.clock = clock;
    this.random = new Random(seed);
  }

  Clock clock() {
    return clock;
  }

  /** Increments a counter, from 1. */
  synchronized int count(String counter) {
    return counters.merge(counter, 1, Integer::sum);
  }

  /** Returns a number between two, both included. */
  public synchronized long between(long least, long most) {
    return random.longs(1, least, most + 1).findFirst().orElseThrow();
  }

  /** Returns a UUID of version 4 (RFC 9562). */
  synchronized UUID uuid() {
    long high = random.nextLong() & ~0xF000L | 0x4000L;
    long low = random.nextLong() & 0x3FFF_FFFF_FFFF_FFFFL | 0x8000_0000_0000_0000L;
    return new UUID(high, low);
  }
}
