package dev.cachette.answer;

import dev.cachette.match.Received;
import java.util.function.Function;

/**
 * An answer that a function computes from the request. Created by {@link Answers#computed}.
 *
 * @param function computes the answer; called once for each call, by several threads
 */
public record ComputedAnswer(Function<Received, Answer> function) implements Answer {

  /** Returns a short description. */
  @Override
  public String toString() {
    return "a computed answer";
  }
}
