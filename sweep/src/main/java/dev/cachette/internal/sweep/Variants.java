// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.sweep;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.answer.Answer;
import dev.cachette.answer.Answers;
import dev.cachette.answer.Faults;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Response;
import dev.cachette.internal.content.Content;
import dev.cachette.sweep.result.SweepFault;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;

/** The faults that a call can get, made of the response that it gets without one. */
final class Variants {

  /** Stands for that of a call that gets a fault anyway. */
  private static final Response NONE = new Response(204, Headers.none(), Body.empty());

  private static final String ENCODING = "content-encoding";
  private static final int FIRST_ERROR = 400;
  private static final int TOO_MANY_REQUESTS = 429;
  private static final int SERVER_ERROR = 500;
  private static final int UNAVAILABLE = 503;
  private static final int UNAUTHORIZED = 401;
  private static final int NOT_FOUND = 404;

  private final ScenarioCall call;
  private final SweepSettings settings;
  private final Response response;
  private final ResponseAnswer right;
  private final Optional<JsonNode> json;

  private Variants(ScenarioCall call, SweepSettings settings) {
    this.call = call;
    this.settings = settings;
    this.response = call.response().map(Variants::decoded).orElse(NONE);
    Content content = Content.of(response.headers(), response.body());
    this.right = ResponseAnswer.of(response);
    this.json =
        response.body().isEmpty()
            ? Optional.empty()
            : content.json().filter(JsonNode::isContainerNode);
  }

  /** Without a content encoding, so that what the code reads can be changed. */
  private static Response decoded(Response response) {
    Content content = Content.of(response.headers(), response.body());
    if (response.headers().first(ENCODING).isEmpty() || content.encodingProblem().isPresent()) {
      return response;
    }
    return new Response(
        response.status(),
        response.headers().with(ENCODING).with("content-length"),
        Body.of(content.bytes()),
        response.trailers());
  }

  /** Returns those of a call. */
  static List<Variant> of(ScenarioCall call, SweepSettings settings) {
    Variants variants = new Variants(call, settings);
    // The code goes on with a response only if it is one of success.
    boolean isSuccess = call.response().filter(it -> it.status() < FIRST_ERROR).isPresent();
    return settings.faults().stream()
        .sorted()
        .filter(fault -> isSuccess || fault.losesResponse())
        .flatMap(fault -> variants.of(fault).stream())
        .toList();
  }

  private List<Variant> of(SweepFault fault) {
    boolean hasBody = !response.body().isEmpty();
    return switch (fault) {
      case UNKNOWN_HOST -> one(fault, Faults.unknownHost());
      case CONNECTION_REFUSED -> one(fault, Faults.connectionRefused());
      case CONNECT_TIMEOUT -> one(fault, Faults.connectTimeout());
      case NO_RESPONSE -> one(fault, Faults.noResponse());
      case CONNECTION_RESET -> one(fault, Faults.connectionReset());
      case RESET_MID_BODY -> hasBody ? one(fault, Faults.resetMidBody(right)) : List.of();
      case TRUNCATED -> hasBody ? one(fault, Faults.truncated(right)) : List.of();
      case TOO_MANY_REQUESTS ->
          one(fault, Answers.status(TOO_MANY_REQUESTS).header("retry-after", "0"));
      case SERVER_ERROR -> one(fault, Answers.problem(SERVER_ERROR, "Internal Server Error"));
      case UNAVAILABLE -> one(fault, Answers.status(UNAVAILABLE));
      case UNAUTHORIZED ->
          one(fault, Answers.status(UNAUTHORIZED).header("www-authenticate", "Bearer"));
      case NOT_FOUND -> one(fault, Answers.problem(NOT_FOUND, "Not Found"));
      case INVALID_JSON -> json.isPresent() ? one(fault, Faults.invalidJson(right)) : List.of();
      case EMPTY_BODY -> hasBody ? one(fault, withBody("")) : List.of();
      case MISSING_MEMBER -> each(fault, JsonVariants::withoutMembers);
      case NULL_MEMBER -> each(fault, JsonVariants::withNulls);
      case HUGE_NUMBER -> each(fault, JsonVariants::withHugeNumbers);
      case WRONG_CONTENT_TYPE -> hasBody ? one(fault, Faults.wrongContentType(right)) : List.of();
      case SLOW -> one(fault, right.delayed(settings.slow()));
    };
  }

  private Optional<JsonVariants> jsonVariants() {
    return json.map(
        it -> new JsonVariants(it, settings.members(), settings.seed() + call.number()));
  }

  /** Returns which members of its response are not tried; empty if all are. */
  static Optional<String> omitted(ScenarioCall call, SweepSettings settings) {
    return new Variants(call, settings)
        .jsonVariants()
        .map(JsonVariants::members)
        .filter(all -> all > settings.members())
        .map(
            all ->
                String.format(
                    "call %d: %d of the %d members of its response, chosen by seed %d;"
                        + " members(...) sets another number",
                    call.number(), settings.members(), all, settings.seed()));
  }

  private List<Variant> one(SweepFault fault, Answer answer) {
    return List.of(new Variant(call, fault, "", answer));
  }

  private List<Variant> each(
      SweepFault fault, Function<JsonVariants, List<JsonVariants.Changed>> making) {
    return jsonVariants().map(making).orElse(List.of()).stream()
        .map(it -> new Variant(call, fault, it.place(), withBody(it.json().toString())))
        .toList();
  }

  private ResponseAnswer withBody(String text) {
    return ResponseAnswer.of(
        new Response(
            response.status(),
            response.headers().with("content-length"),
            Body.of(text, response.headers().charset()),
            response.trailers()));
  }
}
