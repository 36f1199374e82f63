// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases.capture;

import dev.cachette.cassette.Exchange;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.internal.engine.Capturing;
import dev.cachette.internal.engine.Maker;
import dev.cachette.internal.engine.RealCallObserver;
import dev.cachette.internal.tunnel.TunnelledClients;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Supplier;

/** Passes incoming calls on to the application. */
public final class IncomingCalls implements Capturing {

  /** A request header with the name of the case; not passed on. */
  static final String NAME_HEADER = "cachette-case";

  private static final Set<String> SAFE = Set.of("GET", "HEAD");
  private static final int REDIRECTION = 300;
  private static final int ERROR = 400;
  private static final long PATIENCE_SECONDS = 60;

  private final CapturedCalls captured;
  private final CallsInFlight inFlight;
  private final TunnelledClients applications;
  private final AtomicLong numbers = new AtomicLong();

  /** By the ports of connections to the application. */
  private final Map<Integer, Long> carried = new HashMap<>();

  private final String application;
  private final Supplier<String> ownUrl;
  private final Optional<Repeating> repeating;

  /** Sends a request to the application once more. */
  @FunctionalInterface
  public interface Repeating {

    /** Sends it. */
    void send(Request request, RealCallObserver observer);
  }

  /**
   * Creates it.
   *
   * @param application the origin of the application
   * @param ownUrl the base URL that callers use instead
   * @param repeating repeats safe requests; empty if they are not repeated
   */
  public IncomingCalls(
      CapturedCalls captured,
      CallsInFlight inFlight,
      TunnelledClients applications,
      String application,
      Supplier<String> ownUrl,
      Optional<Repeating> repeating) {
    this.captured = captured;
    this.inFlight = inFlight;
    this.applications = applications;
    this.application = application;
    this.ownUrl = ownUrl;
    this.repeating = repeating;
  }

  @Override
  public Captured begin(Request request, Maker maker, String protocol) {
    long number = numbers.incrementAndGet();
    inFlight.begin(number, endpoint(request));
    captured.begin(number, request.headers().first(NAME_HEADER));
    Request passedOn =
        new Request(
            request.method(), request.uri(), request.headers().with(NAME_HEADER), request.body());
    return new IncomingCall(number, passedOn);
  }

  /** Returns the method and the path without what is different in each call. */
  private static String endpoint(Request request) {
    String path =
        request.uri().path().replaceAll("/[^/]*\\d[^/]*", "/{}").replaceAll("/[^/]{20,}", "/{}");
    return request.method() + " " + path;
  }

  private synchronized void carries(int port, long call) {
    carried.put(port, call);
    applications.carries(port, call);
  }

  private synchronized void carriesNot(long call) {
    carried
        .entrySet()
        .removeIf(
            each -> {
              if (each.getValue() == call) {
                applications.carriesNone(each.getKey());
                return true;
              }
              return false;
            });
  }

  private final class IncomingCall implements Captured {

    private final long number;
    private final Request request;
    private boolean ended;

    IncomingCall(long number, Request request) {
      this.number = number;
      this.request = request;
    }

    @Override
    public Request request() {
      return request;
    }

    @Override
    public boolean followsConnection() {
      return true;
    }

    @Override
    public void connectedFrom(int port) {
      carries(port, number);
    }

    @Override
    public void ended(Exchange exchange) {
      carriesNot(number);
      if (exchange.response().isPresent()) {
        captured.end(number, exchange);
      } else {
        captured.abandon(number);
      }
      synchronized (this) {
        ended = true;
      }
      if (!isRepeated() || exchange.response().isEmpty()) {
        inFlight.end(number);
      }
    }

    private boolean isRepeated() {
      return repeating.isPresent() && SAFE.contains(request.method());
    }

    /** Links to the application itself would lead the caller past this. */
    @Override
    public Response passedBack(Response head) {
      if (isRepeated()) {
        repeating.ifPresent(this::repeat);
        inFlight.end(number);
      }
      if (head.status() < REDIRECTION || head.status() >= ERROR) {
        return head;
      }
      Optional<String> location =
          head.headers().first("location").filter(it -> it.startsWith(application + "/"));
      return location
          .map(it -> ownUrl.get() + it.substring(application.length()))
          .map(it -> new Response(head.status(), head.headers().with("location", it), head.body()))
          .orElse(head);
    }

    /** Only what has ended: a stream may have no end. */
    private void repeat(Repeating by) {
      synchronized (this) {
        if (!ended) {
          return;
        }
      }
      long again = numbers.incrementAndGet();
      captured.repeat(again, number);
      inFlight.repeat(number, again);
      CompletableFuture<Exchange> done = new CompletableFuture<>();
      by.send(
          request,
          new RealCallObserver() {
            @Override
            public void ended(Exchange exchange) {
              done.complete(exchange);
            }

            @Override
            public boolean followsConnection() {
              return true;
            }

            @Override
            public void connectedFrom(int port) {
              carries(port, again);
            }
          });
      try {
        Exchange exchange = done.get(PATIENCE_SECONDS, TimeUnit.SECONDS);
        captured.endRepeated(again, number, exchange);
      } catch (InterruptedException stopped) {
        Thread.currentThread().interrupt();
      } catch (ExecutionException | TimeoutException unanswered) {
        // Nothing is learnt from it.
      } finally {
        carriesNot(again);
        inFlight.end(again);
      }
    }

    @Override
    public boolean explainsFailures() {
      return true;
    }
  }
}
