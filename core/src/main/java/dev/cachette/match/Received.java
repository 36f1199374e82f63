package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.http.Query;
import dev.cachette.http.Request;
import dev.cachette.internal.uri.Percent;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * A request that arrived, as conditions and computed answers see it: with the variables of the
 * request line, and its content read.
 *
 * <p>Immutable and safe to share between threads.
 */
public final class Received {

  private final Request request;
  private final Content content;
  private final String origin;
  private final String normalPath;
  private final String key;
  private final Map<String, String> variables;

  /** Read when it is asked for; two threads may read the same. */
  private @Nullable Query query;

  private Received(
      Request request,
      Content content,
      String origin,
      String normalPath,
      String key,
      Map<String, String> variables) {
    this.request = request;
    this.content = content;
    this.origin = origin;
    this.normalPath = normalPath;
    this.key = key;
    this.variables = variables;
  }

  /** A request, before any request line has been held against it. */
  public static Received of(Request request) {
    String path = Percent.normalise(request.uri().path());
    String origin = request.uri().origin();
    return new Received(
        request,
        Content.of(request.headers(), request.body()),
        origin,
        path,
        key(request.method(), origin, path),
        Map.of());
  }

  /** This request with variables; its content is not read again. */
  public Received with(Map<String, String> values) {
    return values.equals(variables)
        ? this
        : new Received(request, content, origin, normalPath, key, Map.copyOf(values));
  }

  /** The request. */
  public Request request() {
    return request;
  }

  /** Its content, decoded. */
  public Content content() {
    return content;
  }

  /** The variables of the request line with their values, decoded. */
  public Map<String, String> variables() {
    return variables;
  }

  /**
   * The value of one variable in the request line.
   *
   * @throws IllegalArgumentException if the request line has no such variable
   */
  public String variable(String name) {
    String value = variables.get(name);
    if (value == null) {
      throw new IllegalArgumentException(
          String.format(
              "There is no variable \"%s\" in the request line; it has %s.",
              name, variables.isEmpty() ? "none" : variables.keySet()));
    }
    return value;
  }

  /** Scheme, host and port, see {@link dev.cachette.http.Uri#origin}. */
  public String origin() {
    return origin;
  }

  /** The path in the one form that equivalent escapes share (RFC 3986 section 6.2.2). */
  public String normalPath() {
    return normalPath;
  }

  /** Method, origin and normal path in one text, which equal ones share. */
  public String key() {
    return key;
  }

  /** Such a text of these parts; no method holds a space, no origin a slash behind its host. */
  public static String key(String method, String origin, String path) {
    return method + ' ' + origin + path;
  }

  /** The parameters of the query, decoded. */
  public Query query() {
    Query read = query;
    if (read == null) {
      read = request.uri().query();
      query = read;
    }
    return read;
  }

  /** The first value of a query parameter, decoded. */
  public Optional<String> query(String name) {
    return query().first(name);
  }

  /** The first value of a header, whatever the case of its name. */
  public Optional<String> header(String name) {
    return request.headers().first(name);
  }

  /** The text of the body, decoded. */
  public String text() {
    return content.text();
  }

  /**
   * The JSON of the body.
   *
   * @throws IllegalStateException if it is none; the message gives line and column
   */
  public JsonNode json() {
    Reading<JsonNode> reading = content.jsonReading();
    return reading
        .value()
        .orElseThrow(
            () -> new IllegalStateException("The body of " + request + " is " + reading.problem()));
  }

  /** The request line. */
  @Override
  public String toString() {
    return request.toString();
  }
}
