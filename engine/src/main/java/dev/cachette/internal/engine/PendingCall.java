// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.calls.Call;
import dev.cachette.cassette.Exchange;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.internal.explain.Explained;
import dev.cachette.internal.text.Failed;
import java.time.Duration;
import java.util.Optional;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import org.opentest4j.AssertionFailedError;

/**
 * A call whose answer is chosen, and the way to its reply. Used by one thread at a time: first to
 * get the reply, then to confirm its delivery.
 */
public final class PendingCall {

  private final Scopes scopes;
  private final CallProgress progress;
  private final HostServices outside;
  private final ArrivedCall arrived;
  private final ChosenAnswer answer;

  /** Its entry in the log; null as long as it has none. */
  private @Nullable LoggedCall entry;

  /** Why the real service did not answer, if its caller is told. */
  private @Nullable String unanswered;

  PendingCall(Scopes scopes, HostServices outside, ChosenAnswer answer) {
    this.scopes = scopes;
    this.progress = scopes.progress();
    this.outside = outside;
    this.arrived = answer.call();
    this.answer = answer;
  }

  /** Returns the request. */
  public Request request() {
    return arrived.request();
  }

  /** Returns the HTTP version of its connection. */
  String protocol() {
    return arrived.arrival().carrier().protocol();
  }

  /**
   * Returns true if {@link #reply} runs user code, calls a real service, or validates the call: it
   * may be slow.
   */
  public boolean takesTime() {
    return answer.takesTime() || answer.isChecked() && arrived.described().isPresent();
  }

  /** Adds the call to the log before {@link #reply}, which takes time. */
  public void begin() {
    entry = logged(Call.State.COMPUTING);
  }

  /**
   * Returns the reply. The call is in the log when this returns, but nothing waits for it until
   * {@link #held} or {@link #sending}.
   */
  public Reply reply() {
    Reply reply;
    Optional<AssertionFailedError> failure = Optional.empty();
    try {
      reply = checked(answer.reply(this));
    } catch (CallRefused refused) {
      failure = Optional.of(refused.refusal().failure());
      reply = Reply.of(failed(refused.refusal()));
    } catch (StubFailed thrown) {
      failure = Optional.of(thrown.failure(request()));
      reply = Reply.of(failed(Refusal.of(failure.get())));
    } catch (DescribedCall.Misfit thrown) {
      failure = Optional.of(Failed.of(thrown.getMessage()));
      noteFailure(failure.get());
      reply = Reply.of(thrown.response());
    }
    if (CrossOrigin.isByPage(request()) && scopes.allowsCrossOrigin()) {
      reply = CrossOrigin.allowed(request(), reply);
    }
    if (entry == null) {
      entry = logged(Call.State.ARRIVED);
    }
    entry.explained(answer.whyNothingAnswers().orElse(null));
    Optional<String> why = failure.map(Throwable::getMessage);
    progress.answer(
        entry, reply, answer.reference(), why.or(() -> Optional.ofNullable(unanswered)));
    return reply;
  }

  private Reply checked(Reply reply) {
    return isUnexpected() ? reply : WebSockets.checked(request(), reply, answer.reference());
  }

  private LoggedCall logged(Call.State state) {
    LoggedCall logged =
        new LoggedCall(
            arrived.arrival(), arrived.received(), state, answer.reference(), outside.mapper());
    progress.log(logged);
    return logged;
  }

  /** Notes that a gate holds the reply back. */
  public void held() {
    ifLogged(it -> progress.reach(it, Call.State.HELD));
  }

  /** Notes that the beginning of the reply is being written. */
  public void writingFirst() {
    ifLogged(progress::writeFirst);
  }

  /** Notes that the reply is being sent. */
  public void sending() {
    ifLogged(it -> progress.reach(it, Call.State.SENDING));
  }

  private void ifLogged(Consumer<LoggedCall> action) {
    if (entry != null) {
      action.accept(entry);
    }
  }

  /** Marks the reply as completely written. */
  public void delivered() {
    ifLogged(progress::deliver);
  }

  /** Records that the caller disconnected before there was a reply. */
  public void hungUp() {
    answer.hungUp();
  }

  /** Returns true if the test that it belongs to has ended. */
  public boolean isOver() {
    return scopes.isOver(arrived.arrival());
  }

  /** Returns true if the next answer is a fault before the request: it needs a new connection. */
  public boolean needsNewConnectionNext() {
    return answer.needsNewConnectionNext(scopes.connections());
  }

  /** Returns true if its connection, over HTTP/1.1, is to end with the response. */
  public boolean endsConnection() {
    return scopes.connections().keepsNone(request());
  }

  /** Returns how long ago the request arrived, by the clock of the session. */
  public Duration age() {
    return Duration.between(arrived.arrival().at(), scopes.now());
  }

  /** Returns the same in real time. */
  public Duration realAge() {
    return progress.since(arrived.arrival());
  }

  /** Fails the test: the answer cannot be sent to this client. */
  public Response cannotBeSent(String why) {
    return failed(Refusal.of(answer.cannotBeSent(why).failure(request())));
  }

  /** Fails the test; the response says why. */
  private Response failed(Refusal refusal) {
    noteFailure(refusal.failure());
    return Responder.explained(refusal.status(), refusal.failure().getMessage());
  }

  /** Fails the test. */
  void noteFailure(AssertionFailedError failure) {
    scopes.noteFailure(arrived.arrival(), failure);
  }

  /** Notes why its stub refused it: for the log, and for a test that fails. */
  void noteRefused(String why) {
    unanswered = why;
    scopes.note(arrived.arrival(), why);
  }

  /** Notes why the real service did not answer, which its caller is told. */
  void noteUnanswered(String why) {
    unanswered = why;
  }

  /** Notes that nothing answers it; returns true if it is the first of its kind. */
  boolean noteUnexpected(String explanation) {
    return scopes.noteUnexpected(
        arrived.arrival(),
        arrived.received().toString(),
        explanation,
        Optional.of(arrived.received()));
  }

  /** Adds to the log what has arrived from the real service after the reply was begun. */
  void complete(Exchange real) {
    ifLogged(logged -> real.response().ifPresent(it -> progress.complete(logged, it)));
  }

  /** Returns true if nothing answers it. */
  boolean isUnexpected() {
    return answer.isUnexpected();
  }

  /** Finds out why nothing answers it, which may take long. */
  Optional<Explained> explain() {
    return answer.whyNothingAnswers();
  }
}
