package dev.cachette.calls;

import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.answer.Trouble;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Query;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import java.net.URI;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * One request that arrived, with the answer it got. Immutable and safe to share between threads.
 */
public interface Call {

  /** The request as it arrived. */
  Request request();

  /**
   * The response that was given; of a stream, status and headers.
   *
   * @throws IllegalStateException if a trouble came in its place, see {@link #trouble}
   */
  Response response();

  /** What went wrong, as the stub wanted it; empty where a response was given in order. */
  Optional<Trouble> trouble();

  /**
   * Why it failed the test while it was answered: a check of its stub does not hold, a function of
   * the test's threw, or the description of the service says otherwise. Its response has status 500
   * then. Empty if it did not, and for an unexpected call.
   */
  Optional<String> failure();

  /** The version of HTTP that it came by: {@code HTTP/1.1} or {@code HTTP/2}. */
  String protocol();

  /**
   * The number of the connection that it came by, from 1 as connections were made: calls of the
   * same number shared one.
   */
  int connection();

  /** The trouble in words, or the status of the response. */
  default String outcome() {
    return trouble().map(Trouble::toString).orElseGet(() -> response().toString());
  }

  /** The stub that answered; empty for an unexpected call. */
  Optional<StubReference> stub();

  /** The values of the variables in the request line, by name, percent-decoded. */
  Map<String, String> variables();

  /**
   * The body read as an object by Jackson, with the mapper of the settings.
   *
   * @throws org.opentest4j.AssertionFailedError if the body is no such JSON; the message shows it
   */
  <T> T as(Class<T> type);

  /**
   * The body read as an object by Jackson, for a type with parameters: {@code new
   * TypeReference<List<Booking>>() {}}.
   *
   * @throws org.opentest4j.AssertionFailedError if the body is no such JSON; the message shows it
   */
  <T> T as(TypeReference<T> type);

  /**
   * The body read as JSON, whatever its content type.
   *
   * @throws org.opentest4j.AssertionFailedError if it is no JSON; the message gives line and column
   */
  JsonNode json();

  /** Whether the response was written to its end. */
  boolean isDelivered();

  /**
   * What stands at one place in the JSON of the body.
   *
   * @param path a JSONPath (RFC 9535) such as {@code $.vessel.name}, or a JSON Pointer (RFC 6901)
   * @return the value; where the path can find several, an array of them
   * @throws org.opentest4j.AssertionFailedError if the body is no JSON, or has nothing there
   * @throws IllegalArgumentException if the path is malformed; the message marks the place
   */
  default JsonNode json(String path) {
    return JsonLookup.find(this, path);
  }

  /** The method, as sent. */
  default String method() {
    return request().method();
  }

  /** The absolute URI that was called; a character that {@link URI} refuses is percent-encoded. */
  default URI uri() {
    return request().uri().toJavaUri();
  }

  /**
   * The value of one variable in the request line.
   *
   * @throws IllegalArgumentException if the request line has no such variable
   */
  default String variable(String name) {
    String value = variables().get(name);
    if (value == null) {
      throw new IllegalArgumentException(
          String.format(
              "There is no variable \"%s\" in the request line that this call fits; it has %s.",
              name, variables().isEmpty() ? "none" : variables().keySet()));
    }
    return value;
  }

  /** The parameters of the query, decoded. */
  default Query query() {
    return request().uri().query();
  }

  /** The first value of a query parameter, decoded. */
  default Optional<String> query(String name) {
    return query().first(name);
  }

  /** The header fields, in the order they arrived. */
  default Headers headers() {
    return request().headers();
  }

  /** The first value of a header, whatever the case of its name. */
  default Optional<String> header(String name) {
    return headers().first(name);
  }

  /** All values of a header, in order. */
  default List<String> headers(String name) {
    return headers().all(name);
  }

  /** The body as bytes; empty if there was none. */
  default Body body() {
    return request().body();
  }

  /** The body as text, its content coding undone, in the charset of its type, else UTF-8. */
  default String text() {
    return request().text();
  }
}
