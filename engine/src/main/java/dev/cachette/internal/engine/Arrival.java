// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import java.time.Instant;

/**
 * A request that has arrived.
 *
 * @param number its number, from 1
 * @param scope the scope that was innermost on arrival, which everything about the request belongs
 *     to
 * @param carrier its connection
 * @param isLate whether it was certainly made for a test that is over
 * @param isOrphan whether it is late, and no scope of its test is open
 * @param at when it arrived
 * @param nanos the same in real time
 */
record Arrival(
    long number,
    StubScope scope,
    ConnectionInfo carrier,
    boolean isLate,
    boolean isOrphan,
    Instant at,
    long nanos) {}
