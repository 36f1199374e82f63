package dev.cachette.examples.harbour;

/**
 * A vessel that wants to come in.
 *
 * @param draught how deep it lies in the water, in metres
 */
public record Vessel(String name, double draught) {}
