// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.explain;

import dev.cachette.result.Check;
import dev.cachette.result.Difference;

/** Names of checks that keep a stub from answering a request that matches it. */
public final class Obstacle {

  /** The stub has no answer yet. */
  public static final String NO_ANSWER = "answer";

  /** All its answers have been given. */
  public static final String USED_UP = "uses";

  /** Another stub must be called first. */
  public static final String AFTER = "after";

  /** It becomes active later. */
  public static final String FROM = "from";

  /** It is no longer active. */
  public static final String UNTIL = "until";

  private static final double NEARNESS = 0.8;

  private Obstacle() {}

  /** Returns the failed check. */
  public static Check of(String name, String expected, String actual) {
    return Check.missed(name, NEARNESS, Difference.of(expected, actual));
  }
}
