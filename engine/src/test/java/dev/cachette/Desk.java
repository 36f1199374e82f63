// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.answer.Answer;
import dev.cachette.calls.Calls;
import dev.cachette.calls.CallsInternals;
import dev.cachette.cassette.Exchange;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.internal.engine.ConnectionInfo;
import dev.cachette.internal.engine.HostServices;
import dev.cachette.internal.engine.PendingCall;
import dev.cachette.internal.engine.Responder;
import dev.cachette.internal.engine.ScopeSettings;
import dev.cachette.internal.engine.Scopes;
import dev.cachette.internal.engine.StubRule;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.model.DraftStub;
import dev.cachette.internal.model.Place;
import dev.cachette.match.RequestPattern;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Stubs that answer requests, with no connection between. */
public final class Desk {

  /** The time on its clock. */
  public static final Instant NOW = Instant.parse("2031-04-02T12:00:00Z");

  private final List<String> warnings = new ArrayList<>();
  private final Scopes scopes;
  private final Responder responder;

  public Desk() {
    this(new ScopeSettings(Clock.fixed(NOW, ZoneOffset.UTC), 0, 100_000, 1 << 28));
  }

  /** With settings of their own. */
  public Desk(ScopeSettings settings) {
    scopes = new Scopes(settings);
    responder =
        new Responder(
            scopes,
            new HostServices(
                Json::mapper,
                source -> Body.of("content of " + source.name()),
                (request, protocol) ->
                    Exchange.answered(
                        Instant.EPOCH,
                        Duration.ZERO,
                        protocol,
                        request,
                        new Response(200, Headers.none(), Body.of("the real " + request.uri()))),
                warnings::add,
                warnings::add));
  }

  /** Returns a stub that was declared at this line of BerthDeskTest.java. */
  public StubRule stub(String requestLine, int line, Answer... answers) {
    return stub(draft(RequestPattern.of(requestLine), line), answers);
  }

  /** Returns a stub that was declared with everything that a draft has. */
  public StubRule stub(DraftStub draft, Answer... answers) {
    scopes.begin(draft);
    StubRule rule = new StubRule(draft.answeredBy(List.of(answers)), Optional.empty(), true, 0);
    scopes.finish(draft, rule);
    return rule;
  }

  /** Returns a stub that is begun at this line of BerthDeskTest.java. */
  public DraftStub draft(RequestPattern pattern, int line) {
    StackTraceElement frame =
        new StackTraceElement("BerthDeskTest", "test", "BerthDeskTest.java", line);
    return new DraftStub(pattern, new Place(frame));
  }

  /** Returns the response to a request, written completely. */
  public Response respond(Request request) {
    PendingCall call = responder.receive(request, ConnectionInfo.ANY).decide();
    Response response = call.reply().response().orElseThrow();
    call.sending();
    call.delivered();
    return response;
  }

  /** Returns what a request without headers and body gets: the text of the response. */
  public String get(String line) {
    return respond(Samples.request(line)).text();
  }

  public Calls calls() {
    return CallsInternals.of(scopes::calls);
  }

  public Scopes scopes() {
    return scopes;
  }

  public Responder responder() {
    return responder;
  }

  public List<String> warnings() {
    return warnings;
  }
}
