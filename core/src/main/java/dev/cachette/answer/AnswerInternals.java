// SPDX-License-Identifier: Apache-2.0
package dev.cachette.answer;

import dev.cachette.http.Body;
import dev.cachette.http.Response;
import dev.cachette.internal.answer.Delivery;
import dev.cachette.internal.answer.FeedReader;
import dev.cachette.internal.answer.Timing;
import dev.cachette.match.Received;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.UnaryOperator;

/**
 * Members of this package for the implementation. Not public API: may change in any release.
 *
 * @hidden
 */
public final class AnswerInternals {

  private AnswerInternals() {}

  /** Returns an answer that leaves its call to the next stub that matches. */
  public static Answer passing() {
    return PassingAnswer.INSTANCE;
  }

  /** Returns true if an answer leaves its call to the next stub. */
  public static boolean isPassing(Answer answer) {
    return answer instanceof PassingAnswer;
  }

  /** Returns the timing of an answer. */
  public static Timing timing(Timed<?> answer) {
    return answer.timing();
  }

  /** Returns an answer with another timing. */
  public static <T extends Timed<T>> T timed(T answer, Timing timing) {
    return answer.timed(timing);
  }

  /** Returns how a response is prepared for a request. */
  public static Delivery delivery(ResponseAnswer answer) {
    return answer.delivery();
  }

  /** Returns an answer with the content of its file. */
  public static ResponseAnswer read(ResponseAnswer answer, Body content) {
    return answer.read(content);
  }

  /** Returns the function of a computed answer. */
  public static Function<Received, Answer> function(ComputedAnswer answer) {
    return answer.function();
  }

  /** Returns true if the response of the real service is transformed. */
  public static boolean isTransformed(RealAnswer answer) {
    return answer.isTransformed();
  }

  /** Returns true if a failure of the real service does not fail the test. */
  public static boolean isFailureAccepted(RealAnswer answer) {
    return answer.isFailureAccepted();
  }

  /** Returns the function that transforms the response of the real service. */
  public static UnaryOperator<ResponseAnswer> transformation(RealAnswer answer) {
    return answer.transformation();
  }

  /** Returns status and headers of a stream. */
  public static Response head(StreamAnswer answer) {
    return answer.head();
  }

  /** Returns the pieces of a stream that are sent first. */
  public static List<Body> pieces(StreamAnswer answer) {
    return answer.pieces();
  }

  /** Returns the feed that sends the rest of a stream, if there is one. */
  public static Optional<Feed> feed(StreamAnswer answer) {
    return answer.feed();
  }

  /** Returns the number of bytes of the body that are sent before a fault. */
  public static int bytes(Fault fault) {
    return fault.bytes();
  }

  /** Returns the bytes that a fault sends, which are not HTTP. */
  public static Body raw(Fault fault) {
    return fault.raw();
  }

  /** Returns true if an answer is a fault before the request. */
  public static boolean isEarly(Answer answer) {
    return answer instanceof Fault fault && fault.kind().stage().isEarly();
  }

  /** Returns the answers that an answer counts for: a repeated one several times. */
  public static List<Answer> expanded(Answer answer) {
    return answer instanceof RepeatedAnswer repeated
        ? Collections.nCopies(repeated.times(), repeated.answer())
        : List.of(answer);
  }

  /** Applies a function to an answer, or to each repetition of it. */
  public static Answer map(Answer answer, UnaryOperator<Answer> function) {
    return answer instanceof RepeatedAnswer repeated
        ? new RepeatedAnswer(function.apply(repeated.answer()), repeated.times())
        : function.apply(answer);
  }

  /**
   * Sends a reader everything a feed has sent so far, and what it sends from now on.
   *
   * @return ends the subscription
   */
  public static Runnable read(Feed feed, FeedReader reader) {
    return feed.read(reader);
  }
}
