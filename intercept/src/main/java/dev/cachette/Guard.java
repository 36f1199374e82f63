// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.internal.agent.InterceptionUnavailable;
import dev.cachette.internal.agent.NetworkGuard;
import dev.cachette.internal.match.HostPattern;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.text.Failed;
import java.util.List;
import java.util.OptionalInt;

/**
 * Guards the network while no Cachette is open: connections that would leave this machine are
 * refused with an explanation, and listed at the end. Open one for a whole test run; with JUnit,
 * {@code cachette.guard=on} does.
 *
 * <p>While a Cachette is open, it decides instead. Thread-safe.
 *
 * @see Cachette#guard(String...)
 */
public final class Guard implements AutoCloseable {

  private static final int LISTED = 50;

  private final NetworkGuard guard;

  private Guard(NetworkGuard guard) {
    this.guard = guard;
  }

  static Guard open(String... allowed) {
    if (allowed == null) {
      throw Refusals.argument("guard(allowed) was given null. Fix: guard() allows no host.");
    }
    List<HostPattern> patterns = List.of(allowed).stream().map(HostPattern::of).toList();
    return new Guard(
        NetworkGuard.begin(
            (host, port) ->
                patterns.stream()
                    .anyMatch(
                        it ->
                            it.isFor(
                                host, port < 0 ? OptionalInt.empty() : OptionalInt.of(port)))));
  }

  /**
   * Stops guarding.
   *
   * @throws AssertionError if anything was refused; the message lists it by test and thread
   */
  @Override
  public void close() {
    guard.close();
    List<NetworkGuard.Refused> refused = guard.refused();
    if (!refused.isEmpty()) {
      throw Failed.of(text(refused));
    }
  }

  private static String text(List<NetworkGuard.Refused> refused) {
    StringBuilder text =
        new StringBuilder("Calls would have left this machine while nothing was intercepted:\n\n");
    for (NetworkGuard.Refused each : refused.subList(0, Math.min(LISTED, refused.size()))) {
      text.append(
          String.format(
              "  %s, by %s%s\n",
              each.destination(),
              each.madeBy(),
              each.times() == 1 ? "" : ", tried " + each.times() + " times"));
    }
    if (refused.size() > LISTED) {
      text.append("  ... ").append(refused.size() - LISTED).append(" more ...\n");
    }
    return text.append(
            "\nFix: annotate the test classes with @InterceptHttp, or allow a host:"
                + " cachette.guardAllows=HOST.\n")
        .toString();
  }

  /**
   * Fails if calls were made for tests that were over, with their classes, and so failed nothing
   * yet. For test frameworks, at the end of a run.
   *
   * @throws AssertionError with the explanations of these calls, each once
   */
  public static void requireNoLateCalls() {
    List<String> late = LateCalls.take();
    if (!late.isEmpty()) {
      throw Failed.of(
          "Calls were made for tests whose classes were over:\n\n" + String.join("\n\n", late));
    }
  }

  /**
   * Returns the destinations outside of this machine, each once, that connections went to while no
   * Cachette was open and nothing was guarded. For test frameworks, which report them at the end.
   */
  public static List<String> connectionsOut() {
    try {
      return NetworkGuard.left();
    } catch (InterceptionUnavailable notHere) {
      return List.of();
    }
  }
}
