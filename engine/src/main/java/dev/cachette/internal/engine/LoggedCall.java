// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.JavaType;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import dev.cachette.answer.Fault;
import dev.cachette.calls.Call;
import dev.cachette.calls.CallTimes;
import dev.cachette.calls.MadeBy;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.explain.Explained;
import dev.cachette.internal.explain.RequestText;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.text.Failed;
import dev.cachette.match.Received;
import dev.cachette.result.ClosestStub;
import dev.cachette.result.StubReference;
import java.security.cert.X509Certificate;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.opentest4j.AssertionFailedError;

/** A call in the log. */
final class LoggedCall implements Call {

  private final Arrival arrival;
  private final Request request;
  private final Map<String, String> variables;
  private final Supplier<ObjectMapper> mapper;
  private volatile Answered answered;
  private volatile List<ClosestStub> closest = List.of();
  private @Nullable Response whole;
  private volatile State state;
  private final Stages stages;

  /** The answer to it; nothing at first. */
  private record Answered(
      Optional<Response> response,
      Optional<Fault> fault,
      Optional<StubReference> stub,
      Optional<String> failure) {}

  /**
   * Creates a call without an answer.
   *
   * @param stub what will answer, if that is known
   */
  LoggedCall(
      Arrival arrival,
      Received received,
      State state,
      Optional<StubReference> stub,
      Supplier<ObjectMapper> mapper) {
    this.arrival = arrival;
    // Keep only what is needed: a Received also holds the decoded and parsed body.
    this.request = received.request();
    this.variables = received.variables();
    this.state = state;
    this.answered = new Answered(Optional.empty(), Optional.empty(), stub, Optional.empty());
    this.mapper = mapper;
    this.stages = new Stages(arrival.nanos());
  }

  /** Sets the answer. */
  void answer(Reply reply, Optional<StubReference> stub, Optional<String> failure) {
    answered = new Answered(reply.response(), reply.fault(), stub, failure);
    if (whole != null) {
      complete(whole);
    }
  }

  /** Sets why nothing answers it; null if something does. */
  void explained(@Nullable Explained why) {
    closest = why == null ? List.of() : why.closest();
  }

  /** Sets the body that arrived while it was passed on, maybe before the answer was set. */
  void complete(Response arrived) {
    whole = arrived;
    Answered now = answered;
    answered =
        new Answered(now.response.map(headOnly -> arrived), now.fault, now.stub, now.failure);
  }

  /** Returns true if it arrived before another one. */
  boolean isBefore(LoggedCall other) {
    return arrival.number() < other.arrival.number();
  }

  /** Returns when it arrived, and in which scope. */
  Arrival arrival() {
    return arrival;
  }

  Stages stages() {
    return stages;
  }

  /** Notes that it has got that far. */
  void reach(State next, long nanos) {
    Optional<Stages.Stage> stage =
        switch (next) {
          case ARRIVED, COMPUTING -> Optional.empty();
          case HELD -> Optional.of(Stages.Stage.HELD);
          case SENDING -> Optional.of(Stages.Stage.RELEASED);
          case ANSWERED -> Optional.of(Stages.Stage.ANSWERED);
        };
    stage.ifPresent(it -> stages.reach(it, nanos));
    state = next;
  }

  @Override
  public MadeBy madeBy() {
    return arrival.carrier().maker().shown();
  }

  @Override
  public Instant arrivedAt() {
    return arrival.at();
  }

  @Override
  public Optional<Duration> duration() {
    return stages.after(Stages.Stage.ANSWERED);
  }

  @Override
  public CallTimes times() {
    return stages.times();
  }

  @Override
  public String outcome() {
    Answered now = answered;
    return now.fault
        .map(Fault::toString)
        .or(() -> now.response.map(Response::toString))
        .orElse("no answer yet, " + state);
  }

  @Override
  public State state() {
    return state;
  }

  @Override
  public Request request() {
    return request;
  }

  @Override
  public Response response() {
    Answered now = answered;
    return now.response.orElseThrow(
        () ->
            new IllegalStateException(
                now.fault
                    .map(
                        fault ->
                            String.format(
                                "The call %s got no response, but the fault: %s. Fix: check"
                                    + " fault() first.",
                                request, fault))
                    .orElse(
                        String.format(
                            "The call %s has no response yet. Fix: await(1, atMost) first.",
                            request))));
  }

  @Override
  public Optional<Fault> fault() {
    return answered.fault;
  }

  @Override
  public Optional<String> failure() {
    return answered.failure;
  }

  @Override
  public String protocol() {
    return arrival.carrier().protocol();
  }

  @Override
  public long number() {
    return arrival.number();
  }

  @Override
  public int connection() {
    return arrival.carrier().connection();
  }

  @Override
  public Optional<X509Certificate> clientCertificate() {
    return arrival.carrier().clientCertificate();
  }

  /** Returns the number of body bytes that it holds. */
  long size() {
    return (long) request.body().size() + answered.response.map(it -> it.body().size()).orElse(0);
  }

  @Override
  public Optional<StubReference> stub() {
    return answered.stub;
  }

  @Override
  public List<ClosestStub> closestStubs() {
    return closest;
  }

  @Override
  public Map<String, String> variables() {
    return variables;
  }

  @Override
  public String text() {
    return Content.of(request.headers(), request.body()).text();
  }

  @Override
  public <T> T as(Class<T> type) {
    if (type == null) {
      throw new IllegalArgumentException("The type to read the body as must not be null.");
    }
    return read(mapper.get().constructType(type));
  }

  @Override
  public <T> T as(TypeReference<T> type) {
    if (type == null) {
      throw new IllegalArgumentException("The type to read the body as must not be null.");
    }
    return read(mapper.get().constructType(type));
  }

  @Override
  public JsonNode json() {
    if (text().isBlank()) {
      throw failure("is not valid JSON", "it is empty", null);
    }
    try {
      return mapper.get().readTree(text());
    } catch (JsonProcessingException malformed) {
      throw failure("is not valid JSON", Json.problem(malformed), malformed);
    }
  }

  private <T> T read(JavaType type) {
    try {
      return mapper.get().readValue(text(), type);
    } catch (JsonProcessingException unreadable) {
      throw failure(
          "cannot be read as " + type.toCanonical(), Json.problem(unreadable), unreadable);
    }
  }

  private AssertionFailedError failure(String what, String problem, @Nullable Throwable cause) {
    return Failed.of(
        String.format("The body of this call %s, %s\n\n%s", what, problem, RequestText.of(request)),
        cause);
  }

  @Override
  public String toString() {
    return request + "  ->  " + outcome();
  }
}
