package dev.cachette.internal.stub;

import com.fasterxml.jackson.databind.ObjectMapper;
import dev.cachette.answer.Answer;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.calls.Call;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Supplier;

/** Gives every request its response, and logs it before anybody can see the response. */
public final class Responder {

  private final Scopes scopes;
  private final Supplier<ObjectMapper> mapper;
  private final Consumer<String> onUnexpected;

  /**
   * A responder.
   *
   * @param mapper reads bodies as objects
   * @param onUnexpected is told the explanation of each new kind of unexpected call
   */
  public Responder(Scopes scopes, Supplier<ObjectMapper> mapper, Consumer<String> onUnexpected) {
    this.scopes = scopes;
    this.mapper = mapper;
    this.onUnexpected = onUnexpected;
  }

  /** The response to a request: the next answer of the stub that wins, or 501 with the reason. */
  public Response respond(Request request) {
    return scopes
        .answer(request, selected -> answered(request, selected))
        .map(Call::response)
        .orElseGet(() -> unexpected(request, scopes.explain(request), 501));
  }

  /**
   * The response to a request that we could not handle, though it may be right: the reason, noted
   * as an unexpected call.
   */
  public Response failed(Request request, String explanation) {
    return unexpected(request, explanation, 500);
  }

  /**
   * The response to what is no request: 400 with the reason, noted as an unexpected call.
   *
   * @param summary what came, and where it was meant to go
   */
  public Response refused(String summary, String explanation) {
    note(summary, explanation);
    return explained(400, explanation);
  }

  private Response unexpected(Request request, String explanation, int status) {
    Response response = explained(status, explanation);
    scopes.log(new LoggedCall(request, response, Optional.empty(), Map.of(), mapper));
    note(request.toString(), explanation);
    return response;
  }

  private void note(String summary, String explanation) {
    if (scopes.noteUnexpected(summary, explanation)) {
      onUnexpected.accept(explanation);
    }
  }

  private Call answered(Request request, StubScope.Selected selected) {
    return new LoggedCall(
        request,
        responseOf(selected.answer()),
        Optional.of(selected.rule().reference()),
        selected.variables(),
        mapper);
  }

  private static Response responseOf(Answer answer) {
    if (answer instanceof ResponseAnswer plain) {
      return plain.response();
    }
    throw new IllegalStateException("no response is made of " + answer);
  }

  private static Response explained(int status, String explanation) {
    Headers headers = Headers.none().with("content-type", "text/plain; charset=utf-8");
    return new Response(status, headers, Body.of(explanation));
  }
}
