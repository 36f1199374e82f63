package dev.cachette.internal.answer;

import dev.cachette.answer.Answer;
import dev.cachette.answer.ComputedAnswer;
import dev.cachette.answer.Fault;
import dev.cachette.answer.Feed;
import dev.cachette.answer.Gate;
import dev.cachette.answer.RealAnswer;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.answer.StreamAnswer;
import dev.cachette.answer.Timed;
import dev.cachette.http.Body;
import dev.cachette.http.Response;
import dev.cachette.internal.access.HiddenMembers;
import dev.cachette.match.Received;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.UnaryOperator;

/**
 * Gives the implementation members of the types in {@code dev.cachette.answer} that users do not
 * see. The only subclass is in that package.
 */
public abstract class AnswerAccess {

  private static final class Holder {
    static final AnswerAccess ACCESS =
        HiddenMembers.of(AnswerAccess.class, "dev.cachette.answer.AnswerInternals");
  }

  /** For the subclass. */
  protected AnswerAccess() {}

  /** Returns the access. */
  public static AnswerAccess answers() {
    return Holder.ACCESS;
  }

  /** Returns the timing of an answer. */
  public abstract Timing timing(Timed<?> answer);

  /** Returns an answer with another timing. */
  public abstract <T extends Timed<T>> T timed(T answer, Timing timing);

  /** Returns how a response is prepared for a request. */
  public abstract Delivery delivery(ResponseAnswer answer);

  /** Returns an answer with the content of its file. */
  public abstract ResponseAnswer read(ResponseAnswer answer, Body content);

  /** Returns the function of a computed answer. */
  public abstract Function<Received, Answer> function(ComputedAnswer answer);

  /** Returns true if the response of the real service is transformed. */
  public abstract boolean isTransformed(RealAnswer answer);

  /** Returns the function that transforms the response of the real service. */
  public abstract UnaryOperator<ResponseAnswer> transformation(RealAnswer answer);

  /** Returns status and headers of a stream. */
  public abstract Response head(StreamAnswer answer);

  /** Returns the pieces of a stream that are sent first. */
  public abstract List<Body> pieces(StreamAnswer answer);

  /** Returns the feed that sends the rest of a stream, if there is one. */
  public abstract Optional<Feed> feed(StreamAnswer answer);

  /** Returns the number of bytes of the body that are sent before a fault. */
  public abstract int bytes(Fault fault);

  /** Returns the bytes that a fault sends, which are not HTTP. */
  public abstract Body raw(Fault fault);

  /** Returns the answers that an answer counts for: a repeated one several times. */
  public abstract List<Answer> expanded(Answer answer);

  /** Applies a function to an answer, or to each repetition of it. */
  public abstract Answer map(Answer answer, UnaryOperator<Answer> function);

  /**
   * Runs an action when a gate is open: immediately if it is, else on the thread that opens it.
   *
   * @return cancels the action, unless it has run
   */
  public abstract Runnable pass(Gate gate, Runnable action);

  /**
   * Sends a reader everything a feed has sent so far, and what it sends from now on.
   *
   * @return ends the subscription
   */
  public abstract Runnable read(Feed feed, FeedReader reader);
}
