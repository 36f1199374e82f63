// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.answer.Fault;
import dev.cachette.cassette.Exchange;
import dev.cachette.http.Request;
import dev.cachette.internal.engine.RealCallObserver;
import dev.cachette.internal.engine.RealResponse;
import dev.cachette.internal.engine.RealService;
import dev.cachette.internal.engine.RealServiceFailed;
import dev.cachette.internal.real.RealCalls;
import dev.cachette.internal.wire.WireServer;
import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalInt;
import org.jspecify.annotations.Nullable;

/** Real services, except those that are Cachette itself: that would be an endless loop. */
final class ServicesElsewhere implements RealService {

  private final boolean explainsFailures;
  private @Nullable RealCalls calls;
  private @Nullable WireServer server;

  ServicesElsewhere(boolean explainsFailures) {
    this.explainsFailures = explainsFailures;
  }

  /** Sets who calls them; the server that answers calls is created with access to them. */
  void calledBy(WireServer answering, RealServices services) {
    server = answering;
    calls = services.calledBy(answering.engine());
  }

  @Override
  public Exchange call(Request request, String protocol) throws RealServiceFailed {
    requireElsewhere(request);
    return calls().call(request, protocol);
  }

  @Override
  public RealResponse begin(Request request, String protocol, RealCallObserver observer)
      throws RealServiceFailed {
    requireElsewhere(request);
    return calls().begin(request, protocol, observer);
  }

  @Override
  public boolean explainsFailures() {
    return explainsFailures;
  }

  @Override
  public boolean isOurself(Request request) {
    return calls().hasCalled(request)
        || server().listensAt(request.uri().host(), request.uri().port());
  }

  private void requireElsewhere(Request request) throws RealServiceFailed {
    if (isOurself(request)) {
      throw new RealServiceFailed(
          Exchange.failed(Instant.now(), Duration.ZERO, request, Fault.Kind.CONNECTION_RESET),
          new IOException("its destination is this address, which would be an endless loop"));
    }
  }

  /** Looks for a fault of the connection to a real service. */
  Optional<Exchange> probe(Fault.Stage stage, String host, OptionalInt port) {
    return calls().probe(stage, host, port);
  }

  private RealCalls calls() {
    return Objects.requireNonNull(calls);
  }

  private WireServer server() {
    return Objects.requireNonNull(server);
  }
}
