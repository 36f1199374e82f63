// SPDX-License-Identifier: Apache-2.0
package dev.cachette.answer;

import dev.cachette.internal.answer.Timing;
import dev.cachette.internal.misuse.Refusals;
import java.util.function.UnaryOperator;

/**
 * The answer of the real service, which is called with the request as the code under test made it.
 * Created by {@link Answers#realService()}. Every modifier returns a new answer.
 */
public final class RealAnswer extends Timed<RealAnswer> {

  private static final UnaryOperator<ResponseAnswer> NONE = real -> real;

  private final UnaryOperator<ResponseAnswer> transformation;
  private final boolean mayFail;
  private final Timing timing;

  RealAnswer() {
    this(NONE, false, Timing.AT_ONCE);
  }

  private RealAnswer(UnaryOperator<ResponseAnswer> transformation, boolean mayFail, Timing timing) {
    this.transformation = transformation;
    this.mayFail = mayFail;
    this.timing = timing;
  }

  /**
   * Transforms the response of the service before the caller gets it: {@code
   * realService().transformed(real -> real.status(503))}. The function runs on a thread of its own;
   * an exception that it throws fails the test. Several functions are applied in order.
   */
  public RealAnswer transformed(UnaryOperator<ResponseAnswer> function) {
    Refusals.given("transformed(function)", function);
    return new RealAnswer(real -> function.apply(transformation.apply(real)), mayFail, timing);
  }

  /**
   * Accepts that the service cannot be reached, or does not answer: the caller's connection is
   * reset, and a warning logged. Without this, it fails the test as well.
   */
  public RealAnswer mayFail() {
    return new RealAnswer(transformation, true, timing);
  }

  /** Returns true if a failure of the service does not fail the test. */
  boolean isFailureAccepted() {
    return mayFail;
  }

  /** Returns true if the response of the service is transformed. */
  boolean isTransformed() {
    return transformation != NONE;
  }

  /** Returns the function that transforms the response of the service. */
  UnaryOperator<ResponseAnswer> transformation() {
    return transformation;
  }

  @Override
  Timing timing() {
    return timing;
  }

  @Override
  RealAnswer timed(Timing other) {
    return new RealAnswer(transformation, mayFail, other);
  }

  /** Returns a short description. */
  @Override
  public String toString() {
    return "the answer of the real service";
  }
}
