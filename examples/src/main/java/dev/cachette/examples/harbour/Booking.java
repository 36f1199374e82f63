// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.harbour;

/**
 * A booked berth.
 *
 * @param berth its number
 * @param from when the vessel may arrive, as {@code HH:mm}
 */
public record Booking(String berth, String from) {}
