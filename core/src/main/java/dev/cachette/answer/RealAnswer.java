package dev.cachette.answer;

import java.util.function.UnaryOperator;

/**
 * The answer of the real service, which is called for the request as the code under test would have
 * called it. Made by {@link Answers#realService()}. Every modifier returns a new answer.
 */
public final class RealAnswer implements Answer, Timed<RealAnswer> {

  private static final UnaryOperator<ResponseAnswer> NONE = real -> real;

  private final UnaryOperator<ResponseAnswer> alteration;
  private final Timing timing;

  RealAnswer() {
    this(NONE, Timing.AT_ONCE);
  }

  private RealAnswer(UnaryOperator<ResponseAnswer> alteration, Timing timing) {
    this.alteration = alteration;
    this.timing = timing;
  }

  /**
   * Changes what the service answered before the caller gets it: {@code realService().altered(real
   * -> real.status(503))}. It runs on a thread of its own; what it throws fails the test. Several
   * are done one after the other.
   */
  public RealAnswer altered(UnaryOperator<ResponseAnswer> function) {
    if (function == null) {
      throw new IllegalArgumentException("altered(function) was given null.");
    }
    return new RealAnswer(real -> function.apply(alteration.apply(real)), timing);
  }

  /** Whether something is changed of the service's answer. */
  public boolean isAltered() {
    return alteration != NONE;
  }

  /** What is changed of the service's answer. */
  public UnaryOperator<ResponseAnswer> alteration() {
    return alteration;
  }

  @Override
  public Timing timing() {
    return timing;
  }

  @Override
  public RealAnswer timed(Timing other) {
    return new RealAnswer(alteration, other);
  }

  /** Says what it is. */
  @Override
  public String toString() {
    return "the answer of the real service";
  }
}
