// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.internal.explain.Explained;
import dev.cachette.internal.explain.Situation;
import java.util.Optional;
import java.util.function.Function;

/** The last source, for calls that nothing answers: it says why. */
final class UnexpectedSource implements AnswerSource {

  private final HostServices outside;
  private final Function<ArrivedCall, Explained> explaining;

  /**
   * Creates a source.
   *
   * @param explaining explains by what all sources have
   */
  UnexpectedSource(HostServices outside, Function<ArrivedCall, Explained> explaining) {
    this.outside = outside;
    this.explaining = explaining;
  }

  @Override
  public Optional<ChosenAnswer> choose(ArrivedCall call) {
    return Optional.of(new UnexpectedAnswer(call, outside, () -> explaining.apply(call)));
  }

  @Override
  public Situation situation(ArrivedCall call) {
    return Situation.of(
        outside.realService().isOurself(call.request()),
        MakerText.of(call.arrival().carrier().maker()));
  }
}
