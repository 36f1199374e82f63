// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.internal.explain.Situation;
import java.util.Optional;

/** Something that may answer calls, such as the stubs. Sources are asked in order. */
interface AnswerSource {

  /**
   * Chooses the answer to a call, and uses up its turn.
   *
   * @return empty if the next source is to be asked
   * @throws StubFailed if user code throws
   */
  Optional<ChosenAnswer> choose(ArrivedCall call);

  /** Returns a call that it does not answer, as the next sources are to see it. */
  default ArrivedCall passOn(ArrivedCall call) {
    return call;
  }

  /** Returns what it has, for the explanation of a call that nothing answers. */
  default Situation situation(ArrivedCall call) {
    return Situation.NONE;
  }

  /** Returns why it must not answer a call that it would answer, if that explains all. */
  default Optional<String> refusal(ArrivedCall call) {
    return Optional.empty();
  }
}
