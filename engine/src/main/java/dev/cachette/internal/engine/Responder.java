// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

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

/** Finds the answers to requests. */
public final class Responder {

  private static final int MALFORMED = 400;
  private static final int TOO_LARGE = 413;

  private final Scopes scopes;
  private final HostServices outside;
  private final AnswerSources sources;

  /** Creates a responder for these scopes. */
  public Responder(Scopes scopes, HostServices outside) {
    this.scopes = scopes;
    this.outside = outside;
    this.sources = new AnswerSources(scopes, outside);
  }

  /** Accepts a request. */
  public Incoming receive(Request request, ConnectionInfo carrier) {
    return new Incoming(this, scopes.arrive(carrier), request, scopes.timeLimit());
  }

  /** Decides, if a stub answers whose conditions take little time; empty otherwise. */
  Optional<PendingCall> decideQuickly(Arrival arrival, Received received) {
    try {
      return sources
          .stubs()
          .chooseQuickly(ArrivedCall.of(arrival, received, scopes))
          .map(this::pending);
    } catch (StubFailed reportedByDecide) {
      return Optional.empty();
    }
  }

  /** Chooses an answer, and uses up its turn. */
  PendingCall decide(Arrival arrival, Received received) {
    try {
      return pending(sources.choose(ArrivedCall.of(arrival, received, scopes)));
    } catch (StubFailed failed) {
      return refused(arrival, received, Refusal.of(failed.failure(received.request())));
    }
  }

  /** Returns true if its body is larger than the limit when it is decoded. */
  boolean isTooLarge(Received received) {
    Request request = received.request();
    return Content.of(request.headers(), request.body()).exceedsDecoded(scopes.maxRequestBody());
  }

  /** Returns a call that is too large to be decoded; its body is dropped. */
  PendingCall tooLarge(Arrival arrival, Received received) {
    Request request = received.request();
    String what =
        String.format(
            "The body of %s is %,d bytes, and more than %,d when it is decoded from its"
                + " content-encoding, which is the maximum.\n\n"
                + "Fix: raise the limit with Settings.maxRequestBody(bytes), or"
                + " -Dcachette.maxRequestBody=bytes.\n",
            request, request.body().size(), scopes.maxRequestBody());
    Request bare = new Request(request.method(), request.uri(), request.headers(), Body.empty());
    return refused(arrival, MatchInternals.received(bare), new Refusal(TOO_LARGE, Failed.of(what)));
  }

  /** Returns a call for which no stub could be chosen in time. */
  PendingCall undecided(Arrival arrival, Received received, TimeLimitExceeded exceeded) {
    return refused(
        arrival, received, Refusal.of(StubFailed.undecided(received.request(), exceeded)));
  }

  /** Returns a call that failed by a mistake of Cachette's own. */
  PendingCall failed(Arrival arrival, Received received, Throwable thrown) {
    String what = "Cachette failed to answer " + received.request() + ": " + thrown;
    return refused(arrival, received, Refusal.of(Failed.of(what, thrown)));
  }

  private PendingCall refused(Arrival arrival, Received received, Refusal refusal) {
    return pending(new RefusedAnswer(ArrivedCall.of(arrival, received, scopes), refusal));
  }

  private PendingCall pending(ChosenAnswer answer) {
    return new PendingCall(scopes, outside, answer);
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
      return sources.stubs().finder().bodyFile(MatchInternals.received(head), true).isKnown();
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
          .within(
              () ->
                  sources.stubs().finder().bodyFile(MatchInternals.received(head), false).value());
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
