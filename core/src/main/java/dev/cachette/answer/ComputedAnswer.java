package dev.cachette.answer;

import dev.cachette.match.Received;
import java.util.function.Function;

/**
 * An answer that a function of one's own makes from the request. Made by {@link Answers#computed}.
 *
 * @param function makes the answer; called once a call, by several threads
 */
public record ComputedAnswer(Function<Received, Answer> function) implements Answer {

  /** Says what it is. */
  @Override
  public String toString() {
    return "a computed answer";
  }
}
