// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.sweep;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.answer.Answer;
import dev.cachette.answer.Answers;
import dev.cachette.answer.Faults;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.http.Body;
import dev.cachette.http.Response;
import dev.cachette.internal.content.Content;
import dev.cachette.sweep.result.SweepFault;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;

/** The faults that a call can get, made of the response that it gets without one. */
final class Variants {

  private static final int FIRST_ERROR = 400;
  private static final int TOO_MANY_REQUESTS = 429;
  private static final int SERVER_ERROR = 500;
  private static final int UNAVAILABLE = 503;
  private static final int UNAUTHORIZED = 401;
  private static final int NOT_FOUND = 404;

  private final ScenarioCall call;
  private final SweepSettings settings;
  private final ResponseAnswer right;
  private final Optional<JsonNode> json;
  private final List<Variant> all = new ArrayList<>();

  private Variants(ScenarioCall call, SweepSettings settings) {
    this.call = call;
    this.settings = settings;
    Response response = call.response();
    Content content = Content.of(response.headers(), response.body());
    this.right = ResponseAnswer.of(response);
    this.json =
        response.body().isEmpty() || response.headers().first("content-encoding").isPresent()
            ? Optional.empty()
            : content.json().filter(JsonNode::isContainerNode);
  }

  /** Returns those of a call. */
  static List<Variant> of(ScenarioCall call, SweepSettings settings) {
    Variants variants = new Variants(call, settings);
    // The code goes on with a response only if it is one of success.
    boolean isSuccess = call.response().status() < FIRST_ERROR;
    settings.faults().stream()
        .sorted()
        .filter(fault -> isSuccess || fault.losesResponse())
        .forEach(variants::add);
    return variants.all;
  }

  private void add(SweepFault fault) {
    boolean hasBody = !call.response().body().isEmpty();
    switch (fault) {
      case UNKNOWN_HOST -> add(fault, Faults.unknownHost());
      case CONNECTION_REFUSED -> add(fault, Faults.connectionRefused());
      case CONNECT_TIMEOUT -> add(fault, Faults.connectTimeout());
      case NO_RESPONSE -> add(fault, Faults.noResponse());
      case CONNECTION_RESET -> add(fault, Faults.connectionReset());
      case RESET_MID_BODY -> addIf(hasBody, fault, Faults::resetMidBody);
      case TRUNCATED -> addIf(hasBody, fault, Faults::truncated);
      case TOO_MANY_REQUESTS ->
          add(fault, Answers.status(TOO_MANY_REQUESTS).header("retry-after", "0"));
      case SERVER_ERROR -> add(fault, Answers.problem(SERVER_ERROR, "Internal Server Error"));
      case UNAVAILABLE -> add(fault, Answers.status(UNAVAILABLE));
      case UNAUTHORIZED ->
          add(fault, Answers.status(UNAUTHORIZED).header("www-authenticate", "Bearer"));
      case NOT_FOUND -> add(fault, Answers.problem(NOT_FOUND, "Not Found"));
      case INVALID_JSON -> addIf(json.isPresent(), fault, Faults::invalidJson);
      case EMPTY_BODY -> addIf(hasBody, fault, it -> withBody(""));
      case MISSING_MEMBER -> addEach(fault, JsonVariants::withoutMembers);
      case NULL_MEMBER -> addEach(fault, JsonVariants::withNulls);
      case HUGE_NUMBER -> addEach(fault, JsonVariants::withHugeNumbers);
      case WRONG_CONTENT_TYPE -> addIf(hasBody, fault, Faults::wrongContentType);
      case SLOW -> add(fault, right.delayed(settings.slow()));
    }
  }

  private void add(SweepFault fault, Answer answer) {
    all.add(new Variant(call, fault, "", answer));
  }

  private void addIf(
      boolean isPossible, SweepFault fault, Function<ResponseAnswer, Answer> making) {
    if (isPossible) {
      add(fault, making.apply(right));
    }
  }

  private void addEach(
      SweepFault fault, Function<JsonVariants, List<JsonVariants.Changed>> making) {
    json.map(it -> new JsonVariants(it, settings.members(), settings.seed() + call.number()))
        .map(making)
        .orElse(List.of())
        .forEach(
            it -> all.add(new Variant(call, fault, it.place(), withBody(it.json().toString()))));
  }

  private ResponseAnswer withBody(String text) {
    Response response = call.response();
    return ResponseAnswer.of(
        new Response(
            response.status(),
            response.headers().with("content-length"),
            Body.of(text, response.headers().charset()),
            response.trailers()));
  }
}
