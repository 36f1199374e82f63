package dev.cachette.internal.stub;

import dev.cachette.calls.Call;
import java.time.Clock;
import java.util.function.Consumer;

/**
 * What scopes need to know of the settings.
 *
 * @param clock says what time it is
 * @param seed where what is drawn at random begins, in each scope
 * @param maxCalls how many calls the log of a scope holds at most
 * @param maxBodies how many bytes of their bodies it holds at most
 * @param watcher is told of each call that has its whole answer
 * @param plainAsSecure whether calls by plain HTTP that no stub is for are taken for HTTPS
 */
public record ScopeSettings(
    Clock clock,
    long seed,
    int maxCalls,
    long maxBodies,
    Consumer<Call> watcher,
    boolean plainAsSecure) {

  /** With nobody who is told of calls. */
  public ScopeSettings(Clock clock, long seed, int maxCalls, long maxBodies) {
    this(clock, seed, maxCalls, maxBodies, call -> {}, false);
  }
}
