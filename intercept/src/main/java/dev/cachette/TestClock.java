// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.internal.misuse.Refusals;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.Set;
import java.util.concurrent.CopyOnWriteArraySet;
import java.util.concurrent.atomic.AtomicReference;
import org.jspecify.annotations.Nullable;

/**
 * A clock that runs, and that a test can move, set and stop. Every session has one, see {@link
 * Cachette#clock()}; give it to the code under test as well, so that both have the same time.
 *
 * <p>If it is moved past the timeout of a client that waits for a connection ({@link
 * Factories#connectTimeout}) or a response ({@link Factories#noResponse}), the client times out at
 * once, if its timer is known: the timeouts of blocking sockets and of {@code
 * java.net.http.HttpClient}. If it is moved past the delay of a response, the response is sent.
 *
 * <p>In UTC, unless {@link #withZone} sets another zone. Thread-safe.
 */
public final class TestClock extends Clock {

  /**
   * The state of the clock: an offset from the base clock, or an instant if it is stopped.
   *
   * @param stoppedAt the instant at which it is stopped; null while it runs
   */
  private record State(Duration offset, @Nullable Instant stoppedAt) {}

  private static final State RUNNING = new State(Duration.ZERO, null);

  private final Clock base;
  private final ZoneId zone;
  private final AtomicReference<State> state;

  /** Told when it is moved. */
  private final Set<Runnable> listeners;

  private TestClock(
      Clock base, ZoneId zone, AtomicReference<State> state, Set<Runnable> listeners) {
    this.base = base;
    this.zone = zone;
    this.state = state;
    this.listeners = listeners;
  }

  /** Returns a clock that runs with the system clock. */
  public static TestClock running() {
    return over(Clock.systemUTC());
  }

  /**
   * Returns a clock that is stopped at an instant.
   *
   * @throws IllegalArgumentException if it is null
   */
  public static TestClock stoppedAt(Instant instant) {
    Refusals.given("stoppedAt(instant)", instant);
    Clock system = Clock.systemUTC();
    State stopped = new State(Duration.between(system.instant(), instant), instant);
    return create(system, ZoneOffset.UTC, stopped);
  }

  /** Returns a clock that runs with another one. */
  static TestClock over(Clock base) {
    return base instanceof TestClock already ? already : create(base, base.getZone(), RUNNING);
  }

  private static TestClock create(Clock base, ZoneId zone, State state) {
    return new TestClock(base, zone, new AtomicReference<>(state), new CopyOnWriteArraySet<>());
  }

  /** From now on, tells this when it is moved; returns what ends that. */
  Runnable onMove(Runnable listener) {
    listeners.add(listener);
    return () -> listeners.remove(listener);
  }

  /**
   * Moves it forward; a negative duration moves it back.
   *
   * @throws IllegalArgumentException if the duration is null
   */
  public void advance(Duration duration) {
    Refusals.given("advance(duration)", duration);
    state.updateAndGet(
        now ->
            new State(
                now.offset.plus(duration),
                now.stoppedAt == null ? null : now.stoppedAt.plus(duration)));
    listeners.forEach(Runnable::run);
  }

  /**
   * Sets it to an instant; it runs on from there, unless it is stopped.
   *
   * @throws IllegalArgumentException if the instant is null
   */
  public void set(Instant instant) {
    Refusals.given("set(instant)", instant);
    state.updateAndGet(
        now ->
            new State(
                Duration.between(base.instant(), instant), now.stoppedAt == null ? null : instant));
    listeners.forEach(Runnable::run);
  }

  /** Stops it at its current time. Further calls have no effect. */
  public void stop() {
    state.updateAndGet(now -> now.stoppedAt == null ? new State(now.offset, time(now)) : now);
  }

  /** Lets it run on from its current time. */
  public void resume() {
    state.updateAndGet(now -> new State(Duration.between(base.instant(), time(now)), null));
  }

  @Override
  public Instant instant() {
    return time(state.get());
  }

  private Instant time(State now) {
    return now.stoppedAt == null ? base.instant().plus(now.offset) : now.stoppedAt;
  }

  @Override
  public ZoneId getZone() {
    return zone;
  }

  /** Returns the same clock in another zone: moving one moves both. */
  @Override
  public Clock withZone(ZoneId other) {
    return new TestClock(base, other, state, listeners);
  }

  /** Returns an action that restores the current state of the clock. */
  Runnable saved() {
    State before = state.get();
    return () -> state.set(before);
  }

  /** Returns its current time. */
  @Override
  public String toString() {
    return "TestClock " + instant();
  }
}
