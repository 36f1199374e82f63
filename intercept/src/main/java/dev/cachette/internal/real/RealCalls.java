// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.real;

import dev.cachette.answer.Fault;
import dev.cachette.cassette.Exchange;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.http.Uri;
import dev.cachette.internal.agent.InterceptionBypass;
import dev.cachette.internal.cassette.FailedConnection;
import dev.cachette.internal.engine.RealCallObserver;
import dev.cachette.internal.engine.RealResponse;
import dev.cachette.internal.engine.RealService;
import dev.cachette.internal.engine.RealServiceFailed;
import dev.cachette.internal.wire.Engine;
import io.netty.channel.ConnectTimeoutException;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.SocketTimeoutException;
import java.security.cert.X509Certificate;
import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.stream.Stream;

/**
 * Calls real services: with the HTTP version of the caller, if they support it, else with HTTP/1.1;
 * through the JVM's proxy; with its trust store. It blocks the calling thread, which must not be
 * the engine's.
 */
public final class RealCalls implements RealService {

  private static final int SWITCHING_PROTOCOLS = 101;
  private static final long PATIENCE_SECONDS = 60;

  private final Map<String, RealAddress> addresses;
  private final RealConnections connections;
  private final PassMark mark = PassMark.create();

  /**
   * Uses this engine.
   *
   * @param addresses replacements for origins, by origin
   * @param authorities certificate authorities that are trusted in addition to those of the JVM
   */
  public RealCalls(
      Engine engine, Map<String, RealAddress> addresses, List<X509Certificate> authorities) {
    this.addresses = addresses;
    this.connections = new RealConnections(engine, authorities);
  }

  @Override
  public Exchange call(Request request, String protocol) throws RealServiceFailed {
    Beginning call = new Beginning(request, protocol, exchange -> {});
    try {
      return call.answered(await(call.send().whole(), request));
    } catch (IOException | TimeoutException failed) {
      throw new RealServiceFailed(call.failed(failed), failed);
    }
  }

  @Override
  public RealResponse begin(Request request, String protocol, RealCallObserver observer)
      throws RealServiceFailed {
    Beginning call = new Beginning(request, protocol, observer);
    ArrivingResponse response;
    Response head;
    try {
      response = call.send();
      head = await(response.head(), request);
      if (head.status() == SWITCHING_PROTOCOLS) {
        observer.ended(call.answered(head));
        return new RealResponse(head, Optional.of(response), Optional.empty());
      }
      if (response.isCompleteSoon()) {
        Exchange exchange = call.answered(await(response.whole(), request));
        observer.ended(exchange);
        return RealResponse.complete(exchange.response().orElseThrow());
      }
    } catch (IOException | TimeoutException failed) {
      throw new RealServiceFailed(call.failed(failed), failed);
    }
    response
        .whole()
        .whenComplete(
            (whole, failed) ->
                observer.ended(failed == null ? call.answered(whole) : call.failed(failed)));
    return new RealResponse(head, Optional.of(response), response.length());
  }

  /** A call, and the exchange that becomes of it. */
  private final class Beginning {

    private final RealCallObserver observer;
    private final Request received;
    private final Request request;
    private final String protocol;
    private final Instant started = Instant.now().truncatedTo(ChronoUnit.MILLIS);
    private final long before = System.nanoTime();
    private final ArrivingResponse response = new ArrivingResponse();

    Beginning(Request received, String protocol, RealCallObserver observer) {
      this.observer = observer;
      this.received = received;
      this.request = PassMark.without(received);
      this.protocol = protocol;
    }

    ArrivingResponse send() throws IOException {
      Request marked = mark.on(received);
      Route route = Route.to(marked.uri(), addresses);
      connections.send(marked, route, protocol.equals("HTTP/2"), response, observer);
      return response;
    }

    Exchange answered(Response whole) {
      return Exchange.answered(started, since(before), protocol, request, whole)
          .inPieces(response.pieces());
    }

    Exchange failed(Throwable failure) {
      Fault.Kind kind = Failures.kindOf(failure);
      return kind.stage().isEarly()
          ? FailedConnection.of(
              started, since(before), request.uri().host(), request.uri().port(), kind)
          : Exchange.failed(started, since(before), request, kind);
    }
  }

  /** Returns true for a call that was passed on before, and has come back. */
  public boolean hasCalled(Request request) {
    return mark.isOn(request);
  }

  /**
   * Checks whether a host can be resolved, or accepts connections on a port; not for hosts behind a
   * proxy, which does that itself.
   *
   * @return the failure to connect; empty if there is none
   */
  public Optional<Exchange> probe(Fault.Stage stage, String host, OptionalInt port) {
    Instant started = Instant.now().truncatedTo(ChronoUnit.MILLIS);
    long before = System.nanoTime();
    if (stage == Fault.Stage.NAME && isElsewhere(host)) {
      return Optional.empty();
    }
    int number = port.orElse(FailedConnection.HTTPS);
    try {
      Route route = Route.to(wanted(host, number), addresses);
      if (route.proxy().isEmpty()) {
        InetSocketAddress address = route.address();
        if (stage == Fault.Stage.CONNECTION) {
          InterceptionBypass.through(() -> tryToConnect(address));
        }
      }
      return Optional.empty();
    } catch (IOException failed) {
      return Optional.of(
          FailedConnection.of(started, since(before), host, number, Failures.kindOf(failed)));
    }
  }

  private boolean isElsewhere(String host) {
    return addresses.keySet().stream().anyMatch(origin -> Uri.parse(origin).host().equals(host));
  }

  /** Before there is a request, only the port indicates the scheme; or the table does. */
  private Uri wanted(String host, int port) {
    return Stream.of("http", "https")
        .map(scheme -> new Uri(scheme, host, port, "/", Optional.empty()))
        .filter(uri -> addresses.containsKey(uri.origin()))
        .findFirst()
        .orElseGet(() -> FailedConnection.uri(host, port));
  }

  private static boolean tryToConnect(InetSocketAddress address) throws IOException {
    try (Socket socket = new Socket()) {
      socket.connect(address, RealConnections.CONNECT_MILLIS);
      return true;
    } catch (SocketTimeoutException late) {
      throw (IOException) new ConnectTimeoutException(address + " does not accept").initCause(late);
    }
  }

  private static Response await(CompletableFuture<Response> response, Request request)
      throws IOException, TimeoutException {
    try {
      return response.get(PATIENCE_SECONDS, TimeUnit.SECONDS);
    } catch (ExecutionException failed) {
      throw failed.getCause() instanceof IOException known
          ? known
          : new IOException(failed.getCause().toString(), failed.getCause());
    } catch (TimeoutException late) {
      response.completeExceptionally(late);
      throw new TimeoutException(
          request.uri().origin() + " did not answer in " + PATIENCE_SECONDS + " s");
    } catch (InterruptedException interrupted) {
      Thread.currentThread().interrupt();
      throw new IOException("interrupted while " + request.uri().origin() + " was called");
    }
  }

  private static Duration since(long before) {
    return Duration.ofNanos(System.nanoTime() - before);
  }
}
