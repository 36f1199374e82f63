package dev.cachette.internal.stub;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import dev.cachette.calls.Call;
import dev.cachette.calls.StubReference;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.internal.explain.RequestText;
import dev.cachette.internal.json.Json;
import java.util.Collections;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.opentest4j.AssertionFailedError;

/** A call as it stands in the log. */
record LoggedCall(
    Request request,
    Response response,
    Optional<StubReference> stub,
    Map<String, String> variables,
    Supplier<ObjectMapper> mapper)
    implements Call {

  LoggedCall {
    variables = Collections.unmodifiableMap(variables);
  }

  @Override
  public <T> T as(Class<T> type) {
    if (type == null) {
      throw new IllegalArgumentException("The type to read the body as must not be null.");
    }
    try {
      return mapper.get().readValue(text(), type);
    } catch (JsonProcessingException unreadable) {
      throw failure("cannot be read as " + type.getName(), Json.problem(unreadable), unreadable);
    }
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

  private AssertionFailedError failure(String what, String problem, @Nullable Throwable cause) {
    return new AssertionFailedError(
        String.format("The body of this call %s, %s\n\n%s", what, problem, RequestText.of(request)),
        cause);
  }

  @Override
  public String toString() {
    return request + "  ->  " + response;
  }
}
