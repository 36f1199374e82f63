// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.http.Query;
import dev.cachette.http.Request;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.content.Reading;
import dev.cachette.internal.json.JsonQuery;
import dev.cachette.internal.match.ParsedRequest;
import dev.cachette.internal.misuse.Refusals;
import java.util.Map;
import java.util.Optional;

/**
 * A request as conditions and computed answers see it: with the variables of the request line, and
 * its content parsed.
 *
 * <p>Immutable and safe to share between threads.
 */
public final class Received {

  private final ParsedRequest parsed;
  private final Map<String, String> variables;

  private Received(ParsedRequest parsed, Map<String, String> variables) {
    this.parsed = parsed;
    this.variables = variables;
  }

  /** Wraps a request that has not been matched with a request line yet. */
  static Received of(Request request) {
    return new Received(new ParsedRequest(request), Map.of());
  }

  /** Returns this request with variables; its content is not parsed again. */
  Received with(Map<String, String> values) {
    return values.equals(variables) ? this : new Received(parsed, Map.copyOf(values));
  }

  /** Returns the request. */
  public Request request() {
    return parsed.request();
  }

  /** Returns its content, decoded. */
  Content content() {
    return parsed.content();
  }

  /** Returns the request, parsed. */
  ParsedRequest parsed() {
    return parsed;
  }

  /** Returns the variables of the request line with their values, decoded. */
  public Map<String, String> variables() {
    return variables;
  }

  /**
   * Returns the value of a variable of the request line.
   *
   * @throws IllegalArgumentException if the request line has no such variable
   */
  public String variable(String name) {
    String value = variables.get(name);
    if (value == null) {
      throw Refusals.argument(
          String.format(
              "Unknown variable \"%s\": the request line has %s.",
              name, variables.isEmpty() ? "none" : variables.keySet()));
    }
    return value;
  }

  /** Returns the parameters of the query, decoded. */
  public Query query() {
    return parsed.query();
  }

  /** Returns the first value of a query parameter, decoded. */
  public Optional<String> query(String name) {
    return query().first(name);
  }

  /** Returns the first value of a header; header names are not case-sensitive. */
  public Optional<String> header(String name) {
    return request().headers().first(name);
  }

  /** Returns the text of the body, decoded. */
  public String text() {
    return content().text();
  }

  /**
   * Returns the JSON of the body.
   *
   * @throws IllegalStateException if it is not valid JSON; the message gives line and column
   */
  public JsonNode json() {
    Reading<JsonNode> reading = content().jsonReading();
    return reading
        .value()
        .orElseThrow(
            () ->
                new IllegalStateException("The body of " + request() + " is " + reading.problem()));
  }

  /**
   * Returns the value at one place in the JSON of the body.
   *
   * @param path a JSONPath (RFC 9535) such as {@code $.vessel.name}, or a JSON Pointer (RFC 6901)
   * @return the value; an array of values if the path can match several
   * @throws IllegalStateException if the body is not valid JSON, or has nothing there
   * @throws IllegalArgumentException if the path is malformed; the message marks the place
   */
  public JsonNode json(String path) {
    JsonQuery asked = JsonQuery.parse(path);
    JsonNode root = json();
    return asked
        .value(root)
        .orElseThrow(
            () ->
                new IllegalStateException(
                    String.format(
                        "The body of %s has nothing at %s%s",
                        request(),
                        path,
                        asked.whyNothing(root).map(why -> ": " + why).orElse("."))));
  }

  /** Returns the request line. */
  @Override
  public String toString() {
    return request().toString();
  }
}
