// SPDX-License-Identifier: Apache-2.0
package dev.cachette.answer;

import dev.cachette.internal.misuse.Refusals;

/** An answer that is given several times in turn. Created by {@link Answer#repeated}. */
final class RepeatedAnswer implements Answer {

  private static final int MOST = 100_000;

  private final Answer answer;
  private final int times;

  RepeatedAnswer(Answer answer, int times) {
    this.answer = answer;
    this.times = times;
  }

  static RepeatedAnswer of(Answer answer, int times) {
    long all = answer instanceof RepeatedAnswer inner ? (long) inner.times * times : times;
    if (times < 1 || all > MOST) {
      throw Refusals.argument(
          String.format("repeated(times) needs a number from 1 to %d, not %d.", MOST, all));
    }
    return new RepeatedAnswer(
        answer instanceof RepeatedAnswer inner ? inner.answer : answer, (int) all);
  }

  Answer answer() {
    return answer;
  }

  int times() {
    return times;
  }

  /** Returns the answer and how often it is given. */
  @Override
  public String toString() {
    return answer + ", " + times + " times";
  }
}
