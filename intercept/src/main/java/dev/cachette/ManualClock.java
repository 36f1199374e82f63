package dev.cachette;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.concurrent.atomic.AtomicReference;

/**
 * A clock that stands still until a test moves it, for {@link Settings#clock}, and for the code
 * under test. In UTC unless {@link #withZone} says otherwise. Any thread may read and move it.
 */
public final class ManualClock extends Clock {

  private final AtomicReference<Instant> now;
  private final ZoneId zone;

  private ManualClock(AtomicReference<Instant> now, ZoneId zone) {
    this.now = now;
    this.zone = zone;
  }

  /**
   * Returns a clock that stands at an instant.
   *
   * @throws IllegalArgumentException if it is null
   */
  public static ManualClock at(Instant instant) {
    if (instant == null) {
      throw new IllegalArgumentException("A clock stands at an instant, not null.");
    }
    return new ManualClock(new AtomicReference<>(instant), ZoneOffset.UTC);
  }

  /** Moves it on by this time; a negative time moves it back. */
  public void advance(Duration time) {
    now.updateAndGet(instant -> instant.plus(time));
  }

  @Override
  public Instant instant() {
    return now.get();
  }

  @Override
  public ZoneId getZone() {
    return zone;
  }

  /** Returns the same clock, read in another zone: whoever moves one moves both. */
  @Override
  public Clock withZone(ZoneId other) {
    return new ManualClock(now, other);
  }
}
