// SPDX-License-Identifier: Apache-2.0
package dev.cachette.answer;

/**
 * The answer of a stub: a response, a computed response, or a fault. Created by {@link Answers} and
 * {@link Faults}.
 *
 * <p>Answers are immutable values, safe to share between stubs and threads.
 */
public sealed interface Answer permits Timed, ComputedAnswer, PassingAnswer, RepeatedAnswer {

  /**
   * Gives this answer several times in turn: {@code answer(json(queued).repeated(5), json(done))}.
   *
   * @param times 1 to 100,000
   * @throws IllegalArgumentException if the number is out of range
   */
  default Answer repeated(int times) {
    return RepeatedAnswer.of(this, times);
  }
}
