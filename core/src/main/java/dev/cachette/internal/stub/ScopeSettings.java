package dev.cachette.internal.stub;

import dev.cachette.calls.Call;
import java.time.Clock;
import java.util.function.Consumer;

/**
 * The settings of scopes.
 *
 * @param clock the session's clock
 * @param seed the seed of random numbers, in each scope
 * @param maxCalls the capacity of the log of a scope, in calls
 * @param maxBodies the capacity of the log, in bytes of bodies
 * @param watcher called after each completed call
 * @param treatHttpAsHttps whether plain HTTP calls without a stub are treated as HTTPS
 */
public record ScopeSettings(
    Clock clock,
    long seed,
    int maxCalls,
    long maxBodies,
    Consumer<Call> watcher,
    boolean treatHttpAsHttps) {

  /** Creates settings without a listener. */
  public ScopeSettings(Clock clock, long seed, int maxCalls, long maxBodies) {
    this(clock, seed, maxCalls, maxBodies, call -> {}, false);
  }
}
