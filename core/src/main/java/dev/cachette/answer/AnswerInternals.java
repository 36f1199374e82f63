package dev.cachette.answer;

import dev.cachette.http.Body;
import dev.cachette.http.Response;
import dev.cachette.internal.answer.AnswerAccess;
import dev.cachette.internal.answer.Delivery;
import dev.cachette.internal.answer.FeedReader;
import dev.cachette.internal.answer.Timing;
import dev.cachette.match.Received;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.UnaryOperator;

/** Gives the implementation what is hidden from users. Created by {@link AnswerAccess}. */
final class AnswerInternals extends AnswerAccess {

  private AnswerInternals() {}

  @Override
  public Timing timing(Timed<?> answer) {
    return answer.timing();
  }

  @Override
  public <T extends Timed<T>> T timed(T answer, Timing timing) {
    return answer.timed(timing);
  }

  @Override
  public Delivery delivery(ResponseAnswer answer) {
    return answer.delivery();
  }

  @Override
  public ResponseAnswer read(ResponseAnswer answer, Body content) {
    return answer.read(content);
  }

  @Override
  public Function<Received, Answer> function(ComputedAnswer answer) {
    return answer.function();
  }

  @Override
  public boolean isTransformed(RealAnswer answer) {
    return answer.isTransformed();
  }

  @Override
  public UnaryOperator<ResponseAnswer> transformation(RealAnswer answer) {
    return answer.transformation();
  }

  @Override
  public Response head(StreamAnswer answer) {
    return answer.head();
  }

  @Override
  public List<Body> pieces(StreamAnswer answer) {
    return answer.pieces();
  }

  @Override
  public Optional<Feed> feed(StreamAnswer answer) {
    return answer.feed();
  }

  @Override
  public int bytes(Fault fault) {
    return fault.bytes();
  }

  @Override
  public Body raw(Fault fault) {
    return fault.raw();
  }

  @Override
  public List<Answer> expanded(Answer answer) {
    return answer instanceof RepeatedAnswer repeated
        ? Collections.nCopies(repeated.times(), repeated.answer())
        : List.of(answer);
  }

  @Override
  public Answer map(Answer answer, UnaryOperator<Answer> function) {
    return answer instanceof RepeatedAnswer repeated
        ? new RepeatedAnswer(function.apply(repeated.answer()), repeated.times())
        : function.apply(answer);
  }

  @Override
  public Runnable pass(Gate gate, Runnable action) {
    return gate.pass(action);
  }

  @Override
  public Runnable read(Feed feed, FeedReader reader) {
    return feed.read(reader);
  }
}
