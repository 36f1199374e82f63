// SPDX-License-Identifier: Apache-2.0
package dev.cachette.calls;

import java.time.Duration;
import java.util.Optional;

/**
 * When a call reached the stages of its answer: the time since it arrived, in real time, whatever
 * the clock of the session says. Empty for a stage that it has not reached, or has not passed
 * through. Immutable.
 *
 * @param matched when it was decided what answers it
 * @param held when a gate began to hold its answer back
 * @param released when its answer was free to be sent: after the gates, before the delays
 * @param firstByte when the beginning of the response was written
 * @param answered when the answer was written completely
 */
public record CallTimes(
    Optional<Duration> matched,
    Optional<Duration> held,
    Optional<Duration> released,
    Optional<Duration> firstByte,
    Optional<Duration> answered) {}
