package dev.cachette.internal.stub;

import java.time.Clock;

/**
 * What scopes need to know of the settings.
 *
 * @param clock says what time it is
 * @param seed where what is drawn at random begins, in each scope
 * @param maxCalls how many calls the log of a scope holds at most
 * @param maxBodies how many bytes of their bodies it holds at most
 */
public record ScopeSettings(Clock clock, long seed, int maxCalls, long maxBodies) {}
