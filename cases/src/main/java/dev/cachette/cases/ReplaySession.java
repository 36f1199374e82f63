// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cases;

import dev.cachette.Cachette;
import dev.cachette.CachetteInternals;
import dev.cachette.Settings;
import dev.cachette.replay.CaseResult;
import java.util.Optional;
import java.util.function.Function;

/**
 * The Cachette of a replay: one that is given, or that intercepts in this JVM already; else its
 * own, from the first case to the last, so that no call in between leaves the machine. For one
 * thread.
 */
final class ReplaySession implements AutoCloseable {

  private final Optional<Cachette> given;
  private int left;
  private Optional<Cachette> own = Optional.empty();

  /**
   * Creates it.
   *
   * @param cases how many cases are run
   */
  ReplaySession(Optional<Cachette> given, int cases) {
    this.given = given;
    this.left = cases;
  }

  /** Runs a case. */
  CaseResult run(Function<Cachette, CaseResult> run) {
    left--;
    try {
      return run.apply(net());
    } finally {
      if (left == 0) {
        close();
      }
    }
  }

  private Cachette net() {
    Optional<Cachette> open = given.or(CachetteInternals::intercepting).or(() -> own);
    if (open.isPresent()) {
      return open.get();
    }
    Cachette opened =
        Cachette.open(Settings.defaults().name("the replay of cases").acceptLateCalls(true));
    own = Optional.of(opened);
    return opened;
  }

  @Override
  public void close() {
    Optional<Cachette> opened = own;
    own = Optional.empty();
    opened.ifPresent(Cachette::close);
  }
}
