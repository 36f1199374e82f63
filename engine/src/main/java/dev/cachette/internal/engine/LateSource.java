// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.internal.explain.Explained;
import java.util.Optional;

/** Keeps the calls of tests that are over from all other sources. */
final class LateSource implements AnswerSource {

  private final HostServices outside;

  LateSource(HostServices outside) {
    this.outside = outside;
  }

  @Override
  public Optional<ChosenAnswer> choose(ArrivedCall call) {
    return call.arrival().isLate()
        ? Optional.of(new UnexpectedAnswer(call, outside, () -> explained(call)))
        : Optional.empty();
  }

  private static Explained explained(ArrivedCall call) {
    Maker maker = call.arrival().carrier().maker();
    return Explained.of(MakerText.ofOtherTest(call.request(), maker));
  }
}
