// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.answer.Fault;
import dev.cachette.cassette.Exchange;
import dev.cachette.result.StubReference;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** The real services of a session that captures; see {@link Capturing}. */
final class CaptureSource implements AnswerSource {

  private static final StubReference REFERENCE = new StubReference("captured", "capture");

  private final Scopes scopes;
  private final HostServices outside;

  CaptureSource(Scopes scopes, HostServices outside) {
    this.scopes = scopes;
    this.outside = outside;
  }

  @Override
  public Optional<ChosenAnswer> choose(ArrivedCall call) {
    return scopes
        .capturing()
        .filter(it -> !outside.realService().isOurself(call.request()))
        .map(it -> new CapturedAnswer(call, it, scopes, outside));
  }

  @Override
  public Optional<String> refusal(ArrivedCall call) {
    return scopes
        .capturing()
        .filter(it -> outside.realService().isOurself(call.request()))
        .map(it -> RealServiceReply.comesBack(call.request()));
  }

  private static final class CapturedAnswer implements ChosenAnswer {

    private final ArrivedCall call;
    private final Capturing capturing;
    private final Scopes scopes;
    private final HostServices outside;
    private final Instant arrived;

    private Capturing.@Nullable Captured captured;
    private boolean ended;

    CapturedAnswer(ArrivedCall call, Capturing capturing, Scopes scopes, HostServices outside) {
      this.call = call;
      this.capturing = capturing;
      this.scopes = scopes;
      this.outside = outside;
      this.arrived = scopes.now();
    }

    @Override
    public ArrivedCall call() {
      return call;
    }

    @Override
    public Optional<StubReference> reference() {
      return Optional.of(REFERENCE);
    }

    @Override
    public boolean takesTime() {
      return true;
    }

    @Override
    public Reply reply(PendingCall pending) {
      ConnectionInfo connection = call.arrival().carrier();
      Capturing.Captured begun =
          capturing.begin(call.request(), connection.maker(), connection.protocol());
      synchronized (this) {
        captured = begun;
      }
      try {
        Reply reply =
            outside
                .realService()
                .begin(begun.request(), connection.protocol(), new Observer(begun, pending))
                .reply();
        return reply.response().map(it -> reply.with(begun.passedBack(it))).orElse(reply);
      } catch (RealServiceFailed failed) {
        end(failed.exchange());
        return begun.explainsFailures()
            ? new RealServiceReply(pending, outside).failed(failed)
            : Reply.fault(RecordedFaults.late(failed.kind()), Schedule.AT_ONCE);
      }
    }

    /** The caller has left: it waited for no longer. */
    @Override
    public void hungUp() {
      Duration waited = Duration.between(arrived, scopes.now());
      end(Exchange.failed(arrived, waited, call.request(), Fault.Kind.NO_RESPONSE));
    }

    private void end(Exchange exchange) {
      Capturing.Captured of;
      synchronized (this) {
        if (ended || captured == null) {
          return;
        }
        ended = true;
        of = captured;
      }
      of.ended(exchange);
    }

    private final class Observer implements RealCallObserver {

      private final Capturing.Captured begun;
      private final PendingCall pending;

      Observer(Capturing.Captured begun, PendingCall pending) {
        this.begun = begun;
        this.pending = pending;
      }

      @Override
      public void ended(Exchange exchange) {
        pending.complete(exchange);
        end(exchange);
      }

      /** Services see the connections that they would see without a capture. */
      @Override
      public Optional<Integer> callersConnection() {
        return Optional.of(call.arrival().carrier().connection());
      }

      @Override
      public boolean followsConnection() {
        return begun.followsConnection();
      }

      @Override
      public void connectedFrom(int port) {
        begun.connectedFrom(port);
      }
    }
  }
}
