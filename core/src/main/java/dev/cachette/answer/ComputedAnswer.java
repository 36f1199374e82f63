// SPDX-License-Identifier: Apache-2.0
package dev.cachette.answer;

import dev.cachette.match.Received;
import java.util.function.Function;

/** An answer that a function computes from the request. Created by {@link Answers#computed}. */
public final class ComputedAnswer implements Answer {

  private final Function<Received, Answer> function;

  ComputedAnswer(Function<Received, Answer> function) {
    this.function = function;
  }

  Function<Received, Answer> function() {
    return function;
  }

  /** Returns a short description. */
  @Override
  public String toString() {
    return "a computed answer";
  }
}
