package dev.cachette.internal.stub;

import dev.cachette.answer.Answer;
import dev.cachette.answer.AnswerInternals;
import dev.cachette.answer.Answers;
import dev.cachette.answer.ComputedAnswer;
import dev.cachette.answer.Fault;
import dev.cachette.answer.Faults;
import dev.cachette.answer.RealAnswer;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.answer.StreamAnswer;
import dev.cachette.calls.Call;
import dev.cachette.http.Body;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.internal.answer.Delivery;
import dev.cachette.internal.answer.Timing;
import dev.cachette.internal.explain.Answering;
import dev.cachette.internal.explain.Explained;
import dev.cachette.internal.explain.RequestText;
import dev.cachette.internal.render.Rendering;
import dev.cachette.internal.text.Failed;
import dev.cachette.match.Received;
import dev.cachette.result.StubReference;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import org.opentest4j.AssertionFailedError;

/**
 * A request that has arrived, and the way to its reply. Used by one thread at a time: first to get
 * the reply, then to confirm its delivery.
 */
public final class Exchange {

  private static final String COMES_BACK =
      """
      Unexpected call: %s (it would come back)

      It cannot be passed on: its target is an address that Cachette listens on, or Cachette has \
      passed it on before.

      Fix: use that address as a proxy, or serve as a service: Settings.servingAs(origin), or \
      --upstream or --for on the command line.
      """;

  private final Scopes scopes;
  private final HostServices outside;
  private final Arrival arrival;
  private final Received received;
  private final Optional<Selected> selected;
  private final Optional<Refusal> failed;
  private final Optional<LetThrough> through;
  private final Optional<Cassettes.Choice> cassette;
  private final Optional<DescribedCall> described;

  /** True if it is for a real service, but its address is Cachette's own. */
  private final boolean wouldComeBack;

  /** True if an example of the API description answers, because nothing else does. */
  private final boolean byExample;

  private @Nullable LoggedCall call;

  private @Nullable Explained explanation;

  /** Why the real service did not answer, if its caller is told. */
  private @Nullable String unanswered;

  /**
   * Creates an exchange.
   *
   * @param selected the stub that matched; empty if none did
   * @param failed why no stub could be chosen, because a predicate threw for example
   */
  Exchange(
      Scopes scopes,
      HostServices outside,
      Arrival arrival,
      Received received,
      Optional<Selected> selected,
      Optional<Refusal> failed) {
    this.scopes = scopes;
    this.outside = outside;
    this.arrival = arrival;
    this.received = received;
    this.selected = selected;
    this.failed = failed;
    this.described =
        arrival.isLate() || selected.filter(won -> won.rule().isUnchecked()).isPresent()
            ? Optional.empty()
            : scopes.describing(request()).map(service -> new DescribedCall(service, request()));
    boolean open = selected.isEmpty() && failed.isEmpty() && !arrival.isLate();
    boolean exemplary =
        open && described.filter(call -> call.service().answers(request())).isPresent();
    Optional<LetThrough> outward =
        open && !exemplary ? scopes.letsThrough(received) : Optional.empty();
    Optional<Cassettes.Choice> chosen =
        open && outward.isEmpty()
            ? Cassettes.choose(scopes.cassettesFor(request()), request(), scopes.now())
            : Optional.empty();
    boolean isForOthers =
        outward.isPresent() || chosen.filter(Cassettes.Choice::records).isPresent();
    this.wouldComeBack = isForOthers && outside.realService().isOurself(request());
    this.through = wouldComeBack ? Optional.empty() : outward;
    this.cassette = wouldComeBack ? Optional.empty() : chosen;
    this.byExample = exemplary && cassette.isEmpty();
  }

  /** Returns the request. */
  public Request request() {
    return received.request();
  }

  /**
   * Returns true if {@link #reply} runs user code, calls a real service, or validates the call: it
   * may be slow.
   */
  public boolean takesTime() {
    return through.isPresent()
        || described.isPresent()
        || cassette.filter(Cassettes.Choice::records).isPresent()
        || selected.isPresent()
            && (selected.get().answer() instanceof ComputedAnswer
                || selected.get().answer() instanceof RealAnswer
                || !selected.get().rule().checks().isEmpty());
  }

  /** Adds the call to the log before {@link #reply}, which takes time. */
  public void begin() {
    call = logged(Call.State.COMPUTING);
  }

  /**
   * Returns the reply. The call is in the log when this returns, but nothing waits for it until
   * {@link #held} or {@link #sending}.
   */
  public Reply reply() {
    Reply reply;
    Optional<AssertionFailedError> failure = Optional.empty();
    try {
      reply = failed.isPresent() ? Reply.of(failed(failed.get())) : checked(decide());
      failure = failed.map(Refusal::failure);
    } catch (WebSockets.Refused refused) {
      failure = Optional.of(refused.refusal().failure());
      reply = Reply.of(failed(refused.refusal()));
    } catch (StubFailed thrown) {
      failure = Optional.of(thrown.failure(request()));
      reply = Reply.of(failed(Refusal.of(failure.get())));
    } catch (DescribedCall.Misfit thrown) {
      failure = Optional.of(Failed.of(thrown.getMessage()));
      scopes.noteFailure(arrival, failure.get());
      reply = Reply.of(thrown.response());
    }
    if (CrossOrigin.isByPage(request()) && scopes.allowsCrossOrigin()) {
      reply = CrossOrigin.allowed(request(), reply);
    }
    if (call == null) {
      call = logged(Call.State.ARRIVED);
    }
    call.explained(explanation);
    Optional<String> why = failure.map(Throwable::getMessage);
    scopes.answer(call, reply, answeredBy(), why.or(() -> Optional.ofNullable(unanswered)));
    return reply;
  }

  private Reply checked(Reply reply) {
    return isUnexpected() ? reply : WebSockets.checked(request(), reply, answeredBy());
  }

  private LoggedCall logged(Call.State state) {
    LoggedCall arrived = new LoggedCall(arrival, received, state, answeredBy(), outside.mapper());
    scopes.log(arrived);
    return arrived;
  }

  private Optional<StubReference> answeredBy() {
    return selected
        .map(won -> won.rule().reference())
        .or(() -> through.map(LetThrough::reference))
        .or(() -> cassette.map(Cassettes.Choice::reference))
        .or(() -> described.filter(it -> byExample).map(DescribedCall::reference));
  }

  /** Notes that a gate holds the reply back. */
  public void held() {
    ifLogged(it -> scopes.reach(it, Call.State.HELD));
  }

  /** Notes that the beginning of the reply is being written. */
  public void writingFirst() {
    ifLogged(scopes::writeFirst);
  }

  /** Notes that the reply is being sent. */
  public void sending() {
    ifLogged(it -> scopes.reach(it, Call.State.SENDING));
  }

  private void ifLogged(Consumer<LoggedCall> action) {
    if (call != null) {
      action.accept(call);
    }
  }

  /** Marks the reply as completely written. */
  public void delivered() {
    ifLogged(scopes::deliver);
  }

  /** Records that the caller disconnected before there was a reply. */
  public void hungUp() {
    cassette.ifPresent(choice -> choice.hungUp(request(), scopes.now()));
  }

  /** Returns true if the test that it belongs to has ended. */
  public boolean isOver() {
    return scopes.isOver(arrival);
  }

  /**
   * Returns true if the next answer of the stub is a fault before the request: it needs a new
   * connection.
   */
  public boolean needsNewConnectionNext() {
    return selected.isPresent() && scopes.connections().isEarlyNext(selected.get().rule())
        || cassette.isPresent()
            && scopes.connections().meetsEarly(request().uri().host(), request().uri().port());
  }

  /** Returns how long ago the request arrived, by the clock of the session. */
  public Duration age() {
    return Duration.between(arrival.at(), scopes.now());
  }

  /** Fails the test: the answer cannot be sent to this client. */
  public Response cannotBeSent(String why) {
    Selected won = selected.orElseThrow();
    return failed(
        Refusal.of(new StubFailed(won.rule(), new IllegalStateException(why)).failure(request())));
  }

  /** Fails the test; the response says why. */
  private Response failed(Refusal refusal) {
    scopes.noteFailure(arrival, refusal.failure());
    return Responder.explained(refusal.status(), refusal.failure().getMessage());
  }

  private Reply decide() {
    if (selected.isPresent()) {
      return answeredAsDescribed(selected.get());
    }
    if (byExample) {
      described.orElseThrow().requireTaken(Answering.EXAMPLE);
      return described.orElseThrow().example();
    }
    if (through.isPresent()) {
      return real(Answers.realService());
    }
    if (cassette.isPresent()) {
      Cassettes.Choice choice = cassette.get();
      if (!choice.records()) {
        described.ifPresent(it -> it.requireTaken(Answering.recording(choice.reference())));
      }
      return reply(choice);
    }
    if (isPreflight()) {
      return Reply.of(CrossOrigin.preflight(request()));
    }
    String text = explain();
    if (scopes.noteUnexpected(arrival, received.toString(), text, Optional.of(received))) {
      outside.warning().accept(text);
    }
    if (arrival.isOrphan() && arrival.carrier().maker().test().isOver()) {
      outside.orphans().accept(text);
    }
    return Reply.of(Responder.explained(501, text));
  }

  /** Returns true if nothing answers it. */
  boolean isUnexpected() {
    return selected.isEmpty()
        && failed.isEmpty()
        && !byExample
        && through.isEmpty()
        && cassette.isEmpty()
        && !isPreflight();
  }

  private boolean isPreflight() {
    return CrossOrigin.isPreflight(request()) && !arrival.isLate() && scopes.allowsCrossOrigin();
  }

  /** Returns why nothing answers it; found out at the first call, which may take long. */
  String explain() {
    Explained known = explanation == null ? explanation() : explanation;
    explanation = known;
    return known.text();
  }

  private Explained explanation() {
    Maker maker = arrival.carrier().maker();
    if (arrival.isLate()) {
      return Explained.of(MakerText.ofOtherTest(request(), maker));
    }
    if (wouldComeBack) {
      return Explained.of(String.format(COMES_BACK, request()));
    }
    return scopes
        .explain(request(), outside.realService().isOurself(request()), MakerText.of(maker))
        .and(described.map(DescribedCall::remark).orElse(""));
  }

  /** Returns the stub's answer, if call and answer conform to the API description. */
  private Reply answeredAsDescribed(Selected won) {
    Answering stub = Answering.stub(won.rule().reference());
    described.ifPresent(it -> it.requireTaken(stub));
    Reply reply = answered(won);
    return described.map(it -> it.requirePossible(reply, stub)).orElse(reply);
  }

  /**
   * Returns the stub's answer.
   *
   * @throws StubFailed if a check fails, or if user code throws
   */
  private Reply answered(Selected won) {
    try {
      won.rule().checks().forEach(check -> check.verify().accept(received));
      return reply(won, computed(won.answer()));
    } catch (RuntimeException | Error thrown) {
      throw new StubFailed(won.rule(), thrown);
    }
  }

  private Answer computed(Answer answer) {
    Answer computed = answer;
    while (computed instanceof ComputedAnswer function) {
      computed = AnswerInternals.function(function).apply(received);
      if (computed == null) {
        throw new IllegalStateException("the function of its computed answer returned null");
      }
      if (computed instanceof Fault fault && fault.kind().stage().isEarly()) {
        throw new IllegalStateException(
            "its computed answer is \"" + fault + "\", which happens before there is a request");
      }
    }
    // A repeated answer counts once here: each call computes its own.
    return AnswerInternals.expanded(computed).get(0);
  }

  private Reply reply(Selected won, Answer answer) {
    if (answer instanceof ResponseAnswer plain) {
      return whole(won, plain);
    }
    if (answer instanceof StreamAnswer stream) {
      return Reply.stream(
          AnswerInternals.head(stream),
          AnswerInternals.pieces(stream),
          AnswerInternals.feed(stream).map(feed -> reader -> AnswerInternals.read(feed, reader)),
          Schedule.of(
              AnswerInternals.timing(stream),
              AnswerInternals.pieces(stream).size(),
              won.templateState()));
    }
    if (answer instanceof Fault fault) {
      return fault
          .answer()
          .map(
              it ->
                  whole(won, AnswerInternals.timed(it, AnswerInternals.timing(fault))).with(fault))
          .orElseGet(
              () ->
                  Reply.fault(
                      fault, Schedule.of(AnswerInternals.timing(fault), 1, won.templateState())));
    }
    return real(won, (RealAnswer) answer);
  }

  private Reply whole(Selected won, ResponseAnswer answer) {
    Optional<Delivery.Source> source = AnswerInternals.delivery(answer).source();
    if (AnswerInternals.delivery(answer).streamed()) {
      // Streamed content is not rendered.
      Schedule schedule = Schedule.of(AnswerInternals.timing(answer), 1, won.templateState());
      return Reply.of(answer.response()).in(List.of(), schedule).from(source.orElseThrow());
    }
    ResponseAnswer read =
        source.isPresent()
            ? AnswerInternals.read(answer, outside.reader().read(source.get()))
            : answer;
    Reply reply = Reply.of(Rendering.of(read, received, won.count(), won.templateState()));
    if (AnswerInternals.timing(answer) == Timing.AT_ONCE) {
      return reply;
    }
    List<Body> pieces =
        Schedule.split(
            reply.response().orElseThrow().body(), AnswerInternals.timing(answer).pieces());
    return reply.in(
        pieces, Schedule.of(AnswerInternals.timing(answer), pieces.size(), won.templateState()));
  }

  /** Returns the reply that passes the real service's response on as it arrives. */
  private Reply real(RealAnswer answer) {
    try {
      return outside
          .realService()
          .begin(request(), arrival.carrier().protocol(), this::arrived)
          .reply();
    } catch (RealServiceFailed unreachable) {
      return unreachable(answer, unreachable);
    }
  }

  /** Adds to the log what has arrived after the reply was begun. */
  private void arrived(dev.cachette.cassette.Exchange real) {
    LoggedCall known = call;
    if (known != null) {
      real.response().ifPresent(it -> scopes.complete(known, it));
    }
  }

  private Reply real(Selected won, RealAnswer answer) {
    if (!AnswerInternals.isTransformed(answer)
        && AnswerInternals.timing(answer) == Timing.AT_ONCE
        && described.isEmpty()) {
      return real(answer);
    }
    try {
      Response response =
          outside
              .realService()
              .call(request(), arrival.carrier().protocol())
              .response()
              .orElseThrow();
      ResponseAnswer transformed =
          AnswerInternals.transformation(answer).apply(ResponseAnswer.of(response));
      if (transformed == null) {
        throw new IllegalStateException("the function of transformed(...) returned null");
      }
      return whole(won, AnswerInternals.timed(transformed, AnswerInternals.timing(answer)));
    } catch (RealServiceFailed unreachable) {
      return unreachable(answer, unreachable);
    }
  }

  private Reply reply(Cassettes.Choice choice) {
    try {
      return choice.reply(request(), arrival.carrier(), outside, this::arrived);
    } catch (RealServiceFailed unreachable) {
      return unreachable(
          unreachable,
          Cassettes.fault(unreachable.kind()),
          "; recorded as \"" + unreachable.exchange().outcome() + "\", and replayed as that");
    }
  }

  private Reply unreachable(RealAnswer answer, RealServiceFailed unreachable) {
    if (selected.isPresent() && !AnswerInternals.isFailureAccepted(answer)) {
      boolean explains = outside.realService().explainsFailures();
      scopes.noteFailure(
          arrival,
          Failed.of(
              String.format(
                  "The real service did not answer the call that the stub %s passes on: %s\n\n%s\n"
                      + "Its caller got %s.\n\nFix: %s If it may fail: %s.\n",
                  selected.get().rule().reference(),
                  unreachable.getMessage(),
                  RequestText.of(request()),
                  explains ? "status 502 with this reason" : "a connection reset",
                  unreachable.fix(explains),
                  selected.get().rule().reference().isInStubFile()
                      ? "mayFail: true"
                      : "realService().mayFail()"),
              unreachable));
    }
    return unreachable(unreachable, Faults.connectionReset(), "");
  }

  private Reply unreachable(RealServiceFailed unreachable, Fault fault, String consequence) {
    boolean explains = outside.realService().explainsFailures();
    outside
        .warning()
        .accept(
            String.format(
                "The real service did not answer %s: %s. The client gets %s%s.\nFix: %s",
                request(),
                unreachable.getMessage(),
                explains ? "502 with the reason" : "\"" + fault + "\"",
                consequence,
                unreachable.fix(explains)));
    if (!explains) {
      return Reply.fault(fault, Schedule.AT_ONCE);
    }
    unanswered = unreachable.getMessage();
    return Reply.of(Responder.explained(502, unreachable.explanation(request())));
  }
}
