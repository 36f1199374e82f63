// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.calls.Call;
import java.time.Clock;
import java.time.Duration;
import java.util.function.Consumer;
import java.util.function.LongSupplier;

/**
 * The settings of scopes.
 *
 * @param clock the session's clock
 * @param seed the seed of random numbers, in each scope
 * @param maxCalls the capacity of the log of a scope, in calls
 * @param maxBodies the capacity of the log, in bytes of bodies
 * @param maxRequestBody the maximum size of the body of a request, decoded, in bytes
 * @param watcher called after each completed call
 * @param onlooker told of scopes and their calls
 * @param treatHttpAsHttps whether plain HTTP calls without a stub are treated as HTTPS
 * @param cors whether web pages of other origins may call
 * @param refuseLate whether calls of tests that are over are refused
 * @param conditionTimeout how long it may take to decide which stub answers a call
 * @param nanos a source of real time, in nanoseconds from any point
 */
public record ScopeSettings(
    Clock clock,
    long seed,
    int maxCalls,
    long maxBodies,
    long maxRequestBody,
    Consumer<Call> watcher,
    Onlooker onlooker,
    boolean treatHttpAsHttps,
    boolean cors,
    boolean refuseLate,
    Duration conditionTimeout,
    LongSupplier nanos) {

  /** Creates settings without a listener. */
  public ScopeSettings(Clock clock, long seed, int maxCalls, long maxBodies) {
    this(
        clock,
        seed,
        maxCalls,
        maxBodies,
        Long.MAX_VALUE,
        call -> {},
        Onlooker.NONE,
        false,
        false,
        true,
        Duration.ofSeconds(2),
        () -> 0);
  }
}
