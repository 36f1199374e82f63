// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.answer.Answer;
import dev.cachette.answer.AnswerInternals;
import dev.cachette.answer.ComputedAnswer;
import dev.cachette.answer.Fault;
import dev.cachette.answer.RealAnswer;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.answer.StreamAnswer;
import dev.cachette.http.Body;
import dev.cachette.http.Response;
import dev.cachette.internal.answer.Delivery;
import dev.cachette.internal.answer.Timing;
import dev.cachette.internal.explain.Answering;
import dev.cachette.internal.explain.RequestText;
import dev.cachette.internal.model.StubSpec;
import dev.cachette.internal.render.Rendering;
import dev.cachette.internal.text.Failed;
import dev.cachette.result.StubReference;
import java.util.List;
import java.util.Optional;

/**
 * The answer of a stub.
 *
 * @param call the call
 * @param won the stub, and its answer
 */
record StubAnswer(ArrivedCall call, Selected won, HostServices outside) implements ChosenAnswer {

  @Override
  public Optional<StubReference> reference() {
    return Optional.of(won.rule().reference());
  }

  @Override
  public boolean takesTime() {
    return won.answer() instanceof ComputedAnswer
        || won.answer() instanceof RealAnswer
        || !won.rule().spec().checks().isEmpty();
  }

  @Override
  public boolean isChecked() {
    return !won.rule().spec().has(StubSpec.Trait.UNCHECKED);
  }

  @Override
  public boolean needsNewConnectionNext(ConnectionRules connections) {
    return connections.isEarlyNext(won.rule())
        || won.passing().stream().anyMatch(connections::isEarlyNext);
  }

  @Override
  public StubFailed cannotBeSent(String why) {
    return new StubFailed(won.rule(), new IllegalStateException(why));
  }

  @Override
  public Reply reply(PendingCall pending) {
    Answering stub = Answering.stub(won.rule().reference());
    described().ifPresent(it -> it.requireTaken(stub));
    Reply reply = answered(pending);
    return described().map(it -> it.requirePossible(reply, stub)).orElse(reply);
  }

  private Optional<DescribedCall> described() {
    return isChecked() ? call.described() : Optional.empty();
  }

  private Reply answered(PendingCall pending) {
    try {
      won.rule().spec().checks().forEach(check -> check.verify().accept(call.received()));
      return reply(pending, computed(won.answer()));
    } catch (RuntimeException | Error thrown) {
      throw new StubFailed(won.rule(), thrown);
    }
  }

  private Answer computed(Answer answer) {
    Answer computed = answer;
    while (computed instanceof ComputedAnswer function) {
      computed = AnswerInternals.function(function).apply(call.received());
      if (computed == null) {
        throw new IllegalStateException("the function of its computed answer returned null");
      }
      if (AnswerInternals.isEarly(computed)) {
        throw new IllegalStateException(
            "its computed answer is \"" + computed + "\", which happens before there is a request");
      }
    }
    // A repeated answer counts once here: each call computes its own.
    return AnswerInternals.expanded(computed).get(0);
  }

  private Reply reply(PendingCall pending, Answer answer) {
    if (answer instanceof ResponseAnswer plain) {
      return whole(plain);
    }
    if (answer instanceof StreamAnswer stream) {
      return Reply.stream(
          AnswerInternals.head(stream),
          AnswerInternals.pieces(stream),
          AnswerInternals.feed(stream).map(feed -> reader -> AnswerInternals.read(feed, reader)),
          schedule(AnswerInternals.timing(stream), AnswerInternals.pieces(stream).size()));
    }
    if (answer instanceof Fault fault) {
      return fault
          .answer()
          .map(it -> whole(AnswerInternals.timed(it, AnswerInternals.timing(fault))).with(fault))
          .orElseGet(() -> Reply.fault(fault, schedule(AnswerInternals.timing(fault), 1)));
    }
    return real(new RealServiceReply(pending, outside), pending, (RealAnswer) answer);
  }

  private Reply whole(ResponseAnswer answer) {
    Optional<Delivery.Source> source = AnswerInternals.delivery(answer).source();
    Timing timing = AnswerInternals.timing(answer);
    if (AnswerInternals.delivery(answer).streamed()) {
      // Streamed content is not rendered.
      return Reply.of(answer.response())
          .in(List.of(), schedule(timing, 1))
          .from(source.orElseThrow());
    }
    ResponseAnswer read =
        source.isPresent()
            ? AnswerInternals.read(answer, outside.reader().read(source.get()))
            : answer;
    Reply reply = Reply.of(Rendering.of(read, call.received(), won.count(), won.templateState()));
    if (timing == Timing.AT_ONCE) {
      return reply;
    }
    List<Body> pieces = Schedule.split(reply.response().orElseThrow().body(), timing.pieces());
    return reply.in(pieces, schedule(timing, pieces.size()));
  }

  private Schedule schedule(Timing timing, int pieces) {
    return Schedule.of(timing, pieces, won.templateState());
  }

  private Reply real(RealServiceReply service, PendingCall pending, RealAnswer answer) {
    try {
      return isPassedOn(answer) ? service.asItArrives() : transformed(pending, answer);
    } catch (RealServiceFailed unreachable) {
      if (!AnswerInternals.isFailureAccepted(answer)) {
        pending.noteFailure(Failed.of(unanswered(unreachable), unreachable));
      }
      return service.failed(unreachable);
    }
  }

  private boolean isPassedOn(RealAnswer answer) {
    return !AnswerInternals.isTransformed(answer)
        && AnswerInternals.timing(answer) == Timing.AT_ONCE
        && described().isEmpty();
  }

  private Reply transformed(PendingCall pending, RealAnswer answer) throws RealServiceFailed {
    Response response =
        outside.realService().call(call.request(), pending.protocol()).response().orElseThrow();
    ResponseAnswer transformed =
        AnswerInternals.transformation(answer).apply(ResponseAnswer.of(response));
    if (transformed == null) {
      throw new IllegalStateException("the function of transformed(...) returned null");
    }
    return whole(AnswerInternals.timed(transformed, AnswerInternals.timing(answer)));
  }

  private String unanswered(RealServiceFailed unreachable) {
    boolean explains = outside.realService().explainsFailures();
    StubReference stub = won.rule().reference();
    return String.format(
        "The real service did not answer the call that the stub %s passes on: %s\n\n%s\n"
            + "Its caller got %s.\n\nFix: %s If it may fail: %s.\n",
        stub,
        unreachable.getMessage(),
        RequestText.of(call.request()),
        explains ? "status 502 with this reason" : "a connection reset",
        unreachable.fix(explains),
        stub.isInStubFile() ? "mayFail: true" : "realService().mayFail()");
  }
}
