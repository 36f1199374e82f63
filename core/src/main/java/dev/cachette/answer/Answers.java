// SPDX-License-Identifier: Apache-2.0
package dev.cachette.answer;

import com.fasterxml.jackson.databind.ObjectMapper;
import dev.cachette.http.Body;
import dev.cachette.internal.answer.Delivery;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.json.JsonSyntax;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.uri.Percent;
import dev.cachette.internal.xml.Xml;
import dev.cachette.match.Received;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;

/**
 * Creates answers, for static import: {@code net.stub("GET
 * https://tides.example/v1/tides").answer(json("{\"high\": \"04:10\"}"))}.
 *
 * <p>The status is 200, unless {@link ResponseAnswer#status(int)} sets another one; {@code
 * status(404).json(...)} begins with the status. Every method throws {@link
 * IllegalArgumentException} if an argument is null.
 */
public final class Answers {

  private static final String UTF_8 = "; charset=utf-8";

  private Answers() {}

  /**
   * Returns JSON text, sent unchanged as {@code application/json}.
   *
   * @throws IllegalArgumentException if the text is not valid JSON (RFC 8259); the message gives
   *     line and column
   */
  public static ResponseAnswer json(String text) {
    requireNonNull("json(text)", text);
    if (!JsonSyntax.recognises(text)) {
      Json.problemIn(text)
          .ifPresent(
              problem -> {
                throw Refusals.argument(
                    String.format(
                        "json(text) was given text that is not valid JSON, %s\nFix: %s",
                        problem,
                        text.contains("${")
                            ? "for a template, call template(\"application/json\", text)."
                            : "correct it; text(...) sends any text, with .contentType(...)."));
              });
    }
    return ResponseAnswer.of("application/json", Body.of(text));
  }

  /**
   * Returns an object written as JSON by Jackson, with every Jackson module on the classpath. Dates
   * and times are written as ISO 8601 strings.
   *
   * @param value a record, bean, collection, map, {@code JsonNode} or simple value
   * @throws IllegalArgumentException if Jackson cannot write it; the cause is Jackson's error
   */
  public static ResponseAnswer json(Object value) {
    requireNonNull("json(value)", value);
    return value instanceof CharSequence text ? json(text.toString()) : json(value, Json.mapper());
  }

  /**
   * Returns an object written as JSON by a given mapper.
   *
   * @throws IllegalArgumentException if the mapper cannot write it; the cause is Jackson's own
   *     error
   */
  public static ResponseAnswer json(Object value, ObjectMapper mapper) {
    requireNonNull("json(value, mapper)", value);
    requireNonNull("The mapper of json(value, mapper)", mapper);
    return ResponseAnswer.of("application/json", Body.of(Json.write("json(value)", value, mapper)));
  }

  /**
   * Returns XML text, sent unchanged as {@code application/xml} in UTF-8.
   *
   * @throws IllegalArgumentException if it is not well-formed; the message gives line and column
   */
  public static ResponseAnswer xml(String text) {
    requireNonNull("xml(text)", text);
    try {
      Xml.parse(text);
    } catch (Xml.MalformedXml malformed) {
      throw Refusals.argument(
          "xml(text) was given text that is not well-formed XML, "
              + malformed.getMessage()
              + "\nFix: correct it, or send any text with text(...).",
          malformed);
    }
    return ResponseAnswer.of("application/xml" + UTF_8, Body.of(text));
  }

  /** Returns text, as {@code text/plain} in UTF-8. */
  public static ResponseAnswer text(String text) {
    requireNonNull("text(text)", text);
    return ResponseAnswer.of("text/plain" + UTF_8, Body.of(text));
  }

  /** Returns an HTML page, as {@code text/html} in UTF-8. */
  public static ResponseAnswer html(String page) {
    requireNonNull("html(page)", page);
    return ResponseAnswer.of("text/html" + UTF_8, Body.of(page));
  }

  /** Returns bytes, as {@code application/octet-stream}. */
  public static ResponseAnswer bytes(byte[] bytes) {
    return bytes("application/octet-stream", bytes);
  }

  /** Returns bytes of this content type. */
  public static ResponseAnswer bytes(String contentType, byte[] bytes) {
    requireNonNull("bytes(contentType, bytes)", contentType);
    requireNonNull("bytes(bytes)", bytes);
    return ResponseAnswer.of(contentType, Body.of(bytes));
  }

  /** Returns a URL-encoded form, with fields in the order of the map. */
  public static ResponseAnswer form(Map<String, String> fields) {
    requireNonNull("form(fields)", fields);
    String text =
        fields.entrySet().stream()
            .map(
                field ->
                    Percent.encodeForm(field.getKey()) + "=" + Percent.encodeForm(field.getValue()))
            .collect(Collectors.joining("&"));
    return ResponseAnswer.of("application/x-www-form-urlencoded", Body.of(text));
  }

  /**
   * Returns the content of a file, read when the answer is given to a stub. Its content type
   * follows from the file name extension.
   *
   * @param path the path of the file, relative to the working directory
   */
  public static ResponseAnswer file(String path) {
    requireNonNull("file(path)", path);
    return ResponseAnswer.from(new Delivery.Source(false, path), FileTypes.of(path));
  }

  /** Returns the content of a file, like {@link #file(String)}. */
  public static ResponseAnswer file(Path path) {
    requireNonNull("file(path)", path);
    return file(path.toString());
  }

  /**
   * Returns the content of a resource on the classpath, read when the answer is given to a stub.
   * Its content type follows from the file name extension.
   *
   * @param name the name of the resource from the root: {@code harbour/tides.json}
   */
  public static ResponseAnswer classpath(String name) {
    requireNonNull("classpath(name)", name);
    return ResponseAnswer.from(new Delivery.Source(true, name), FileTypes.of(name));
  }

  /**
   * Returns a status without body and headers.
   *
   * @param code 200 to 599
   * @throws IllegalArgumentException if the code is out of range
   */
  public static ResponseAnswer status(int code) {
    return ResponseAnswer.of(code);
  }

  /**
   * Returns a problem (RFC 9457), as {@code application/problem+json}.
   *
   * @param status the status of the response, which the problem repeats
   * @param title a short summary of the problem
   */
  public static ResponseAnswer problem(int status, String title) {
    return problem(status, title, Map.of());
  }

  /**
   * Returns a problem (RFC 9457) with further members: {@code type}, {@code detail}, {@code
   * instance}, or others that Jackson can write.
   */
  public static ResponseAnswer problem(int status, String title, Map<String, ?> members) {
    requireNonNull("problem(status, title)", title);
    requireNonNull("problem(status, title, members)", members);
    Map<String, Object> all = new LinkedHashMap<>();
    all.put("title", title);
    all.put("status", status);
    all.putAll(members);
    return ResponseAnswer.of(
            "application/problem+json", Body.of(Json.write("problem(...)", all, Json.mapper())))
        .status(status);
  }

  /** Returns a redirect with status 302; {@code .status(308)} preserves method and body. */
  public static ResponseAnswer redirect(String location) {
    requireNonNull("redirect(location)", location);
    return status(302).header("location", location);
  }

  /**
   * Returns what a function computes from the request. It runs on a thread of its own, and may
   * block or call other services. An exception that it throws fails the test, whatever the code
   * under test does with the response (a 500 that names the error).
   */
  public static ComputedAnswer computed(Function<Received, Answer> function) {
    requireNonNull("computed(function)", function);
    return new ComputedAnswer(function);
  }

  /**
   * Returns text with expressions that are filled from the request:
   *
   * <ul>
   *   <li>{@code ${path.station}}, {@code ${query.day}}, {@code ${header.x-desk}}, {@code
   *       ${cookie.desk}}, {@code ${form.vessel}}: the first value of that name;
   *   <li>{@code ${json./vessel/name}}, {@code ${json.$.vessel.name}}: a place in a JSON body;
   *   <li>{@code ${method}}, {@code ${url}}, {@code ${host}}, {@code ${body}};
   *   <li>{@code ${count}}: the number of this call of the stub, from 1; {@code
   *       ${counter.bookings}}: a counter from 1, shared by all stubs of the test;
   *   <li>{@code ${random.uuid}}, {@code ${random.1..100}}: random values, by the seed of the
   *       settings;
   *   <li>{@code ${now}}, {@code ${now+PT2H}}, {@code ${today}}, {@code ${today+P1D}}: by the
   *       session's clock, in UTC, as ISO 8601.
   * </ul>
   *
   * {@code ${query.day:-2031-04-02}} has a default; without one, a missing value fails the test. In
   * JSON and XML, values are escaped. {@code $${...}} is sent literally.
   *
   * @param mediaType the content type: {@code application/json}
   * @throws IllegalArgumentException if an expression is unknown; the message names it
   */
  public static ResponseAnswer template(String mediaType, String text) {
    requireNonNull("template(mediaType, text)", mediaType);
    requireNonNull("template(mediaType, text)", text);
    return ResponseAnswer.of(mediaType, Body.of(text)).templated();
  }

  /**
   * Returns a body of no known length, sent piece by piece: each piece a chunk or DATA frame of its
   * own. {@code .pausing(duration)} pauses between them.
   *
   * @param mediaType the content type: {@code application/x-ndjson}
   * @param pieces text, sent in UTF-8; at least one
   */
  public static StreamAnswer stream(String mediaType, String... pieces) {
    requireNonNull("stream(mediaType, pieces)", mediaType);
    requireNonNull("stream(mediaType, pieces)", pieces);
    if (pieces.length == 0) {
      throw Refusals.argument(
          "stream(mediaType, pieces) needs at least one piece. Fix: pass one, or a Feed.");
    }
    List<Body> bodies = new ArrayList<>();
    for (String piece : pieces) {
      requireNonNull("A piece of stream(mediaType, pieces)", piece);
      bodies.add(Body.of(piece));
    }
    return StreamAnswer.of(mediaType, bodies, Optional.empty());
  }

  /**
   * Returns a body of no known length, sent when the test says so. The log has the response without
   * it.
   *
   * @param mediaType the content type: {@code text/event-stream}
   */
  public static StreamAnswer stream(String mediaType, Feed feed) {
    requireNonNull("stream(mediaType, feed)", mediaType);
    requireNonNull("stream(mediaType, feed)", feed);
    return StreamAnswer.of(mediaType, List.of(), Optional.of(feed));
  }

  /** Returns Server-Sent Events (WHATWG HTML); {@code .pausing(duration)} pauses between them. */
  public static StreamAnswer events(Event... events) {
    requireNonNull("events(events)", events);
    String[] texts = new String[events.length];
    for (int at = 0; at < events.length; at++) {
      requireNonNull("An event of events(events)", events[at]);
      texts[at] = events[at].text();
    }
    return stream("text/event-stream", texts).header("cache-control", "no-store");
  }

  /**
   * Returns the answer of the real service: Cachette calls the intended destination with the same
   * method, URL, headers and body, in the HTTP version of the caller, with the JVM's trust store
   * and proxy settings, and does not follow redirects. If the service cannot be reached, the
   * caller's connection fails in the same way.
   */
  public static RealAnswer realService() {
    return new RealAnswer();
  }

  private static void requireNonNull(String what, Object value) {
    if (value == null) {
      throw Refusals.argument(what + " must not be null.");
    }
  }
}
