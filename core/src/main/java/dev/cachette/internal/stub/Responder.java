package dev.cachette.internal.stub;

import com.fasterxml.jackson.databind.ObjectMapper;
import dev.cachette.calls.StubReference;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.match.Received;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Supplier;
import org.opentest4j.AssertionFailedError;

/** Gives every request its response, and logs it before anybody can see the response. */
public final class Responder {

  private final Scopes scopes;
  private final Supplier<ObjectMapper> mapper;
  private final ContentReader reader;
  private final Consumer<String> onUnexpected;

  /**
   * A responder.
   *
   * @param mapper reads bodies as objects
   * @param reader reads the files that computed answers name
   * @param onUnexpected is told the explanation of each new kind of unexpected call
   */
  public Responder(
      Scopes scopes,
      Supplier<ObjectMapper> mapper,
      ContentReader reader,
      Consumer<String> onUnexpected) {
    this.scopes = scopes;
    this.mapper = mapper;
    this.reader = reader;
    this.onUnexpected = onUnexpected;
  }

  /** Takes a request in: finds the stub that wins, whose answer's turn it then is. */
  public Exchange receive(Request request) {
    Scopes.Arrival arrival = scopes.arrive();
    Received received = Received.of(request);
    try {
      Optional<Scopes.Won> won = scopes.select(received).or(() -> headByGet(received));
      return exchange(
          arrival, won.map(Scopes.Won::selected), won.map(Scopes.Won::received).orElse(received));
    } catch (StubFailed failed) {
      return new Exchange(
          Optional.empty(),
          received,
          reader,
          scopes,
          it -> failed(arrival, received, Optional.empty(), failed));
    }
  }

  /** The response to a request: the next answer of the stub that wins, or 501 with the reason. */
  public Response respond(Request request) {
    return receive(request).response();
  }

  /**
   * The response to a request that we could not handle, though it may be right: the reason, noted
   * as an unexpected call.
   */
  public Response failed(Request request, String explanation) {
    LoggedCall call = unexpected(scopes.arrive(), Received.of(request), explanation, 500);
    scopes.log(call);
    return call.response();
  }

  /**
   * The response to what is no request: 400 with the reason, noted as an unexpected call.
   *
   * @param summary what came, and where it was meant to go
   */
  public Response refused(String summary, String explanation) {
    note(scopes.arrive(), summary, explanation);
    return explained(400, explanation);
  }

  /** A stub for GET answers HEAD, too, where none for HEAD does (RFC 9110 section 9.3.2). */
  private Optional<Scopes.Won> headByGet(Received received) {
    Request head = received.request();
    if (!head.method().equals("HEAD")) {
      return Optional.empty();
    }
    Request get = new Request("GET", head.uri(), head.headers(), head.body());
    return scopes
        .select(Received.of(get))
        .map(won -> new Scopes.Won(won.selected(), received.with(won.received().variables())));
  }

  private Exchange exchange(
      Scopes.Arrival arrival, Optional<Selected> selected, Received received) {
    return new Exchange(selected, received, reader, scopes, it -> finish(arrival, it));
  }

  private LoggedCall finish(Scopes.Arrival arrival, Exchange exchange) {
    Received received = exchange.received();
    Optional<Selected> won = exchange.selected();
    if (won.isEmpty()) {
      return unexpected(arrival, received, scopes.explain(received.request()), 501);
    }
    Optional<StubReference> stub = won.map(selected -> selected.rule().reference());
    try {
      return call(arrival, received, exchange.answered(won.get()), stub);
    } catch (StubFailed failed) {
      return failed(arrival, received, stub, failed);
    }
  }

  private LoggedCall failed(
      Scopes.Arrival arrival, Received received, Optional<StubReference> stub, StubFailed failed) {
    AssertionFailedError failure = failed.failure(received.request());
    scopes.noteFailure(arrival, failure);
    return call(arrival, received, explained(500, failure.getMessage()), stub);
  }

  private LoggedCall unexpected(
      Scopes.Arrival arrival, Received received, String explanation, int status) {
    note(arrival, received.toString(), explanation);
    return call(arrival, received, explained(status, explanation), Optional.empty());
  }

  private LoggedCall call(
      Scopes.Arrival arrival, Received received, Response response, Optional<StubReference> stub) {
    return new LoggedCall(arrival, received, response, stub, mapper);
  }

  private void note(Scopes.Arrival arrival, String summary, String explanation) {
    if (scopes.noteUnexpected(arrival, summary, explanation)) {
      onUnexpected.accept(explanation);
    }
  }

  private static Response explained(int status, String explanation) {
    Headers headers = Headers.none().with("content-type", "text/plain; charset=utf-8");
    return new Response(status, headers, Body.of(explanation));
  }
}
