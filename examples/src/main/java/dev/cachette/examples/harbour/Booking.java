package dev.cachette.examples.harbour;

/**
 * A berth that is booked.
 *
 * @param berth its number
 * @param from when the vessel may come in, as {@code HH:mm}
 */
public record Booking(String berth, String from) {}
