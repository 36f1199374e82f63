package dev.cachette.internal.calls;

import java.time.Instant;
import java.util.OptionalInt;

/**
 * An attempt to call that met a fault before there was a request.
 *
 * @param host its host
 * @param port its port; empty if its name was looked up only
 * @param fault the fault, in words
 * @param at when
 */
public record Tried(String host, OptionalInt port, String fault, Instant at) {}
