package dev.cachette.internal.stub;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.JavaType;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import dev.cachette.answer.Trouble;
import dev.cachette.calls.Call;
import dev.cachette.calls.StubReference;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.internal.explain.RequestText;
import dev.cachette.internal.json.Json;
import dev.cachette.match.Content;
import dev.cachette.match.Received;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.opentest4j.AssertionFailedError;

/** A call as it stands in the log. */
final class LoggedCall implements Call {

  private final Scopes.Arrival arrival;
  private final Request request;
  private final Map<String, String> variables;
  private final Optional<Response> response;
  private final Optional<Trouble> trouble;
  private final Optional<StubReference> stub;
  private final Optional<String> failure;

  /** Asked for when it is dropped, long after anything else of it was looked at. */
  private final long size;

  private final Supplier<ObjectMapper> mapper;
  private volatile boolean delivered;

  LoggedCall(
      Scopes.Arrival arrival,
      Received received,
      Reply reply,
      Optional<StubReference> stub,
      Optional<String> failure,
      Supplier<ObjectMapper> mapper) {
    this.arrival = arrival;
    // Not all of what was received: that holds the body once more, decoded and as JSON.
    this.request = received.request();
    this.variables = received.variables();
    this.response = reply.response();
    this.trouble = reply.trouble();
    this.stub = stub;
    this.failure = failure;
    this.size = (long) request.body().size() + response.map(it -> it.body().size()).orElse(0);
    this.mapper = mapper;
  }

  /** When it arrived, and in which scope. */
  Scopes.Arrival arrival() {
    return arrival;
  }

  void deliver() {
    delivered = true;
  }

  @Override
  public boolean isDelivered() {
    return delivered;
  }

  @Override
  public Request request() {
    return request;
  }

  @Override
  public Response response() {
    return response.orElseThrow(
        () ->
            new IllegalStateException(
                String.format(
                    "The call %s got no response, but trouble: %s. Mend: ask trouble() first.",
                    request, trouble.orElseThrow())));
  }

  @Override
  public Optional<Trouble> trouble() {
    return trouble;
  }

  @Override
  public Optional<String> failure() {
    return failure;
  }

  @Override
  public String protocol() {
    return arrival.carrier().protocol();
  }

  @Override
  public int connection() {
    return arrival.carrier().connection();
  }

  /** How many bytes of bodies it keeps. */
  long size() {
    return size;
  }

  @Override
  public Optional<StubReference> stub() {
    return stub;
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
      throw failure("is no JSON", "it is empty", null);
    }
    try {
      return mapper.get().readTree(text());
    } catch (JsonProcessingException malformed) {
      throw failure("is no JSON", Json.problem(malformed), malformed);
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
    return new AssertionFailedError(
        String.format("The body of this call %s, %s\n\n%s", what, problem, RequestText.of(request)),
        cause);
  }

  @Override
  public String toString() {
    return request + "  ->  " + outcome();
  }
}
