package dev.cachette.internal.stub;

import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.explain.SilentConnections;
import dev.cachette.internal.limit.TimeLimitExceeded;
import dev.cachette.internal.text.Failed;
import dev.cachette.internal.text.Printable;
import dev.cachette.match.MatchInternals;
import dev.cachette.match.Received;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import org.opentest4j.AssertionFailedError;

/** Finds the stub that answers a request. */
public final class Responder {

  private static final int MALFORMED = 400;
  private static final int TOO_LARGE = 413;

  private final Scopes scopes;
  private final HostServices outside;
  private final StubFinder stubs;

  /** Creates a responder for these scopes. */
  public Responder(Scopes scopes, HostServices outside) {
    this.scopes = scopes;
    this.outside = outside;
    this.stubs = new StubFinder(scopes);
  }

  /** Accepts a request. */
  public Incoming receive(Request request, ConnectionInfo carrier) {
    return new Incoming(this, scopes.arrive(carrier), request, scopes.timeLimit());
  }

  /** Decides, if a stub answers whose conditions take little time; empty otherwise. */
  Optional<Exchange> decideQuickly(Arrival arrival, Received received) {
    try {
      return stubs
          .selectQuickly(received)
          .value()
          .map(won -> exchange(arrival, received, Optional.of(won)));
    } catch (StubFailed reportedByDecide) {
      return Optional.empty();
    }
  }

  /** Selects a stub, and uses its next answer. */
  Exchange decide(Arrival arrival, Received request) {
    Received received = request;
    try {
      Optional<StubFinder.Won> won = arrival.isLate() ? Optional.empty() : select(received);
      if (won.isEmpty() && !arrival.isLate() && isPlainByName(request.request())) {
        Received secure = MatchInternals.received(PlainCalls.secured(request.request()));
        won = select(secure);
        if (won.isPresent()
            || isRecorded(secure.request())
            || scopes.describing(secure.request()).isPresent()) {
          received = secure;
        }
      }
      return exchange(arrival, received, won);
    } catch (StubFailed failed) {
      return failed(arrival, received, failed.failure(received.request()));
    }
  }

  /** Returns true if its body is larger than the limit when it is decoded. */
  boolean isTooLarge(Received received) {
    Request request = received.request();
    return Content.of(request.headers(), request.body()).exceedsDecoded(scopes.maxRequestBody());
  }

  /** Returns the exchange of a call that is too large to be decoded; its body is dropped. */
  Exchange tooLarge(Arrival arrival, Received received) {
    Request request = received.request();
    String what =
        String.format(
            "The body of %s is %,d bytes, and more than %,d when it is decoded from its"
                + " content-encoding, which is the maximum.\n\n"
                + "Fix: raise the limit with Settings.maxRequestBody(bytes), or"
                + " -Dcachette.maxRequestBody=bytes.\n",
            request, request.body().size(), scopes.maxRequestBody());
    Request bare = new Request(request.method(), request.uri(), request.headers(), Body.empty());
    return new Exchange(
        scopes,
        outside,
        arrival,
        MatchInternals.received(bare),
        Optional.empty(),
        Optional.of(new Refusal(TOO_LARGE, Failed.of(what))));
  }

  /** Returns the exchange of a call for which no stub could be chosen in time. */
  Exchange undecided(Arrival arrival, Received received, TimeLimitExceeded exceeded) {
    return failed(arrival, received, StubFailed.undecided(received.request(), exceeded));
  }

  /** Returns the exchange of a call that failed by a mistake of Cachette's own. */
  Exchange failed(Arrival arrival, Received received, Throwable thrown) {
    String what = "Cachette failed to answer " + received.request() + ": " + thrown;
    return failed(arrival, received, Failed.of(what, thrown));
  }

  private Exchange exchange(Arrival arrival, Received received, Optional<StubFinder.Won> won) {
    return new Exchange(
        scopes,
        outside,
        arrival,
        won.map(StubFinder.Won::received).orElse(received),
        won.map(StubFinder.Won::selected),
        Optional.empty());
  }

  private Exchange failed(Arrival arrival, Received received, AssertionFailedError failure) {
    return new Exchange(
        scopes, outside, arrival, received, Optional.empty(), Optional.of(Refusal.of(failure)));
  }

  private Optional<StubFinder.Won> select(Received received) {
    return stubs.select(received).or(() -> headByGet(received));
  }

  /** Returns true if the caller may mean a service that is normally called over HTTPS. */
  private boolean isPlainByName(Request request) {
    return scopes.takesPlainForSecure()
        && PlainCalls.mayMeanSecure(request)
        && !isRecorded(request);
  }

  private boolean isRecorded(Request request) {
    return scopes.cassettesFor(request).stream().anyMatch(it -> it.answers(request));
  }

  /** Returns true if a stub may save bodies to a file. */
  public boolean keepsBodies() {
    return scopes.keepsBodies();
  }

  /**
   * Returns true if {@link #bodyFile} certainly takes little time.
   *
   * @param head the request without its body
   */
  public boolean isBodyFileKnown(Request head) {
    try {
      return stubs.bodyFile(MatchInternals.received(head), true).isKnown();
    } catch (StubFailed told) {
      return false;
    }
  }

  /**
   * Returns the file for the body of a request; empty to hold it in memory.
   *
   * @param head the request without its body
   */
  public Optional<String> bodyFile(Request head) {
    try {
      return scopes
          .timeLimit()
          .within(() -> stubs.bodyFile(MatchInternals.received(head), false).value());
    } catch (StubFailed | TimeLimitExceeded told) {
      // It fails again, and is reported, when the complete request has arrived.
      return Optional.empty();
    }
  }

  /** Returns how long {@link #bodyFile} may take. */
  public Duration conditionTimeout() {
    return scopes.timeLimit().left();
  }

  /**
   * Returns the response to malformed input: 400 with the reason, logged as an unexpected call.
   *
   * @param summary what arrived, and for which destination
   */
  public Response refused(String summary, String explanation) {
    return refused(summary, explanation, MALFORMED);
  }

  /** As {@link #refused(String, String)}, with another status. */
  public Response refused(String summary, String explanation, int status) {
    note(scopes.arrive(ConnectionInfo.ANY), summary, explanation);
    return explained(status, explanation);
  }

  /**
   * Records that a client closed a connection after its TLS handshake, without a request: it
   * probably refused the certificate.
   *
   * @param destination the host and port
   */
  public void closedWithoutRequest(String destination) {
    scopes.noteSilent(destination);
    outside.warning().accept(SilentConnections.text(List.of(destination)));
  }

  /** A stub for GET also answers HEAD, if no stub for HEAD does (RFC 9110 section 9.3.2). */
  private Optional<StubFinder.Won> headByGet(Received received) {
    Request head = received.request();
    if (!head.method().equals("HEAD")) {
      return Optional.empty();
    }
    Request get = new Request("GET", head.uri(), head.headers(), head.body());
    return stubs
        .select(MatchInternals.received(get))
        .map(
            won ->
                new StubFinder.Won(
                    won.selected(), MatchInternals.with(received, won.received().variables())));
  }

  private void note(Arrival arrival, String summary, String explanation) {
    if (scopes.noteUnexpected(arrival, summary, explanation, Optional.empty())) {
      outside.warning().accept(explanation);
    }
  }

  static Response explained(int status, String explanation) {
    Headers headers = Headers.none().with("content-type", "text/plain; charset=utf-8");
    return new Response(status, headers, Body.of(Printable.of(explanation)));
  }
}
