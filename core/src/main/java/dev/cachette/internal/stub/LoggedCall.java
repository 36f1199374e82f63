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
      throw unreadable("cannot be read as " + type.getName(), unreadable);
    }
  }

  @Override
  public JsonNode json() {
    try {
      return mapper.get().readTree(text());
    } catch (JsonProcessingException malformed) {
      throw unreadable("is no JSON", malformed);
    }
  }

  private AssertionFailedError unreadable(String what, JsonProcessingException cause) {
    return new AssertionFailedError(
        String.format(
            "The body of this call %s, %s%n%n%s",
            what, Json.problem(cause), RequestText.of(request)),
        cause);
  }

  @Override
  public String toString() {
    return request + "  ->  " + response;
  }
}
