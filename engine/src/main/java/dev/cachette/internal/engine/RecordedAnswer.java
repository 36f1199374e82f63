// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.answer.Fault;
import dev.cachette.cassette.Exchange;
import dev.cachette.http.Request;
import dev.cachette.internal.cassette.LoadedCassette;
import dev.cachette.result.StubReference;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** The answer of the real service, recorded into a cassette. */
final class RecordedAnswer implements ChosenAnswer {

  private final ArrivedCall call;
  private final LoadedCassette cassette;
  private final Scopes scopes;
  private final HostServices outside;
  private final Instant arrived;

  private boolean kept;
  private @Nullable Runnable arriving;

  RecordedAnswer(ArrivedCall call, LoadedCassette cassette, Scopes scopes, HostServices outside) {
    this.call = call;
    this.cassette = cassette;
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
    return Optional.of(new StubReference("recorded into " + cassette.name(), "cassette"));
  }

  @Override
  public boolean takesTime() {
    return true;
  }

  /** Blocks until the service answers; if it does not, that is recorded, too. */
  @Override
  public Reply reply(PendingCall pending) {
    try {
      RealResponse real =
          outside
              .realService()
              .begin(
                  request(),
                  pending.protocol(),
                  exchange -> {
                    pending.complete(exchange);
                    ended(exchange);
                  });
      real.arriving().ifPresentOrElse(this::follow, cassette::awaitWritten);
      return real.reply();
    } catch (RealServiceFailed failed) {
      keep(failed.exchange());
      cassette.awaitWritten();
      return new RealServiceReply(pending, outside)
          .failed(
              failed,
              RecordedFaults.late(failed.kind()),
              "; recorded as \"" + failed.exchange().outcome() + "\", and replayed as that");
    }
  }

  private Request request() {
    return call.request();
  }

  /** Times out for a service that does not answer: it will not do so the next time either. */
  @Override
  public void hungUp() {
    Duration waited = Duration.between(arrived, scopes.now());
    keep(Exchange.failed(arrived, waited, request(), Fault.Kind.NO_RESPONSE));
  }

  @Override
  public boolean needsNewConnectionNext(ConnectionRules connections) {
    return RecordedFaults.isNextEarly(connections, request());
  }

  private synchronized void follow(RealResponse.Arriving body) {
    if (!kept) {
      arriving = body::stop;
      cassette.begin(arriving);
    }
  }

  private synchronized void ended(Exchange exchange) {
    if (arriving != null) {
      cassette.ended(arriving);
    }
    keep(exchange);
  }

  private synchronized void keep(Exchange exchange) {
    if (!kept) {
      kept = true;
      cassette.keep(exchange);
    }
  }
}
