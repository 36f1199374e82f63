// SPDX-License-Identifier: Apache-2.0
package dev.cachette.answer;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.NullNode;
import dev.cachette.http.Body;
import dev.cachette.http.Header;
import dev.cachette.http.Headers;
import dev.cachette.http.MediaType;
import dev.cachette.http.Response;
import dev.cachette.internal.answer.Delivery;
import dev.cachette.internal.answer.Delivery.Encoding;
import dev.cachette.internal.answer.Timing;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.json.JsonQuery;
import dev.cachette.internal.json.JsonReplacement;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.template.Template;
import java.nio.charset.Charset;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * An answer with a status, headers and a body. Every modifier returns a new answer and leaves this
 * one unchanged.
 *
 * <p>If it has an {@code etag} or {@code last-modified}, conditional requests are answered with 304
 * or 412 (RFC 9110 section 13). A HEAD request without a stub of its own gets the answer to GET,
 * without the body.
 */
public final class ResponseAnswer extends Timed<ResponseAnswer> {

  private static final Set<String> FOLLOW_FROM_BODY =
      Set.of("content-length", "transfer-encoding", "trailer");

  private final Response response;
  private final Delivery delivery;
  private final Timing timing;

  private ResponseAnswer(Response response, Delivery delivery, Timing timing) {
    this.response = response;
    this.delivery = delivery;
    this.timing = timing;
  }

  private ResponseAnswer(Response response, Delivery delivery) {
    this(response, delivery, Timing.AT_ONCE);
  }

  /**
   * Returns an answer with this response.
   *
   * @throws IllegalArgumentException if the response is null
   */
  public static ResponseAnswer of(Response response) {
    Refusals.given("of(response)", response);
    return new ResponseAnswer(response, Delivery.PLAIN);
  }

  static ResponseAnswer of(int status) {
    return new ResponseAnswer(new Response(200, Headers.none(), Body.empty()), Delivery.PLAIN)
        .status(status);
  }

  static ResponseAnswer of(String contentType, Body body) {
    return new ResponseAnswer(
        new Response(200, Headers.none().with("content-type", contentType), body), Delivery.PLAIN);
  }

  static ResponseAnswer from(Delivery.Source source, String contentType) {
    Headers headers = Headers.none().with("content-type", contentType);
    return new ResponseAnswer(
        new Response(200, headers, Body.empty()), Delivery.PLAIN.from(Optional.of(source)));
  }

  /**
   * Returns this answer with another status.
   *
   * @param code 200 to 599
   * @throws IllegalArgumentException if the code is out of range, or if it is 204, 205 or 304,
   *     which have no content, and this answer has content
   */
  public ResponseAnswer status(int code) {
    if (code < 200 || code > 599) {
      throw Refusals.argument("The status of a response is 200 to 599, not " + code + ".");
    }
    if (isContentless(code) && (!response.body().isEmpty() || delivery.source().isPresent())) {
      throw Refusals.argument(
          String.format(
              "A response with status %d has no content, but this answer has %s. Fix: begin with"
                  + " Answers.status(%d).",
              code, delivery.source().isPresent() ? "a file" : response.body(), code));
    }
    return with(new Response(code, response.headers(), response.body(), response.trailers()));
  }

  /**
   * Returns this answer with a value written as JSON, see {@link Answers#json(Object)}: {@code
   * status(404).json(problem)}.
   *
   * @throws IllegalArgumentException if the value cannot be written
   * @throws IllegalStateException if this answer has content, or a status without content
   */
  public ResponseAnswer json(Object value) {
    return content(Answers.json(value));
  }

  /**
   * Returns this answer with a value written as JSON by a given mapper.
   *
   * @throws IllegalArgumentException if the mapper cannot write the value
   * @throws IllegalStateException if this answer has content, or a status without content
   */
  public ResponseAnswer json(Object value, ObjectMapper mapper) {
    return content(Answers.json(value, mapper));
  }

  /**
   * Returns this answer with XML, see {@link Answers#xml}.
   *
   * @throws IllegalArgumentException if it is not well-formed
   * @throws IllegalStateException if this answer has content, or a status without content
   */
  public ResponseAnswer xml(String text) {
    return content(Answers.xml(text));
  }

  /**
   * Returns this answer with text, see {@link Answers#text}.
   *
   * @throws IllegalStateException if this answer has content, or a status without content
   */
  public ResponseAnswer text(String text) {
    return content(Answers.text(text));
  }

  /**
   * Returns this answer with an HTML page, see {@link Answers#html}.
   *
   * @throws IllegalStateException if this answer has content, or a status without content
   */
  public ResponseAnswer html(String page) {
    return content(Answers.html(page));
  }

  /**
   * Returns this answer with bytes, see {@link Answers#bytes}.
   *
   * @throws IllegalStateException if this answer has content, or a status without content
   */
  public ResponseAnswer bytes(byte[] bytes) {
    return content(Answers.bytes(bytes));
  }

  /** Returns this answer with bytes of this content type, see {@link Answers#bytes}. */
  public ResponseAnswer bytes(String contentType, byte[] bytes) {
    return content(Answers.bytes(contentType, bytes));
  }

  /**
   * Returns this answer with a URL-encoded form, see {@link Answers#form}.
   *
   * @throws IllegalStateException if this answer has content, or a status without content
   */
  public ResponseAnswer form(Map<String, String> fields) {
    return content(Answers.form(fields));
  }

  /**
   * Returns this answer with the content of a file, see {@link Answers#file}.
   *
   * @throws IllegalStateException if this answer has content, or a status without content
   */
  public ResponseAnswer file(String path) {
    return content(Answers.file(path));
  }

  /** Returns this answer with the content of a file, like {@link #file(String)}. */
  public ResponseAnswer file(Path path) {
    return content(Answers.file(path));
  }

  /**
   * Returns this answer with the content of a resource, see {@link Answers#classpath}.
   *
   * @throws IllegalStateException if this answer has content, or a status without content
   */
  public ResponseAnswer classpath(String name) {
    return content(Answers.classpath(name));
  }

  /**
   * Returns this answer with a template, see {@link Answers#template}.
   *
   * @throws IllegalArgumentException if an expression is unknown; the message names it
   * @throws IllegalStateException if this answer has content, or a status without content
   */
  public ResponseAnswer template(String mediaType, String text) {
    return content(Answers.template(mediaType, text));
  }

  /** Headers that were set before, such as another content type, are kept. */
  private ResponseAnswer content(ResponseAnswer content) {
    if (!response.body().isEmpty() || delivery.source().isPresent()) {
      throw Refusals.state(
          "This answer has content already: " + this + ". Fix: give it one content.");
    }
    if (isContentless(response.status())) {
      throw Refusals.state(
          "A response with status " + response.status() + " has no content. Fix: remove it.");
    }
    Headers headers = content.response.headers();
    for (String name : response.headers().stream().map(Header::name).distinct().toList()) {
      headers = headers.with(name, response.headers().all(name).toArray(String[]::new));
    }
    Delivery prepared = delivery.from(content.delivery.source());
    return new ResponseAnswer(
        new Response(response.status(), headers, content.response.body(), response.trailers()),
        content.delivery.template() ? prepared.asTemplate() : prepared,
        timing);
  }

  private static boolean isContentless(int status) {
    return status == 204 || status == 205 || status == 304;
  }

  /**
   * Returns this answer with a header. An existing header of that name is replaced; several values
   * become several header fields, in this order.
   *
   * @throws IllegalArgumentException if there is no value, if the name or a value is malformed, or
   *     if the header is {@code content-length}, {@code transfer-encoding} or {@code trailer},
   *     which are derived from the body
   */
  public ResponseAnswer header(String name, String... values) {
    requireFree(name, values);
    return with(response.headers().with(name, values));
  }

  static void requireFree(String name, String... values) {
    if (values == null || values.length == 0) {
      throw Refusals.argument("The header \"" + name + "\" needs a value.");
    }
    if (name != null && FOLLOW_FROM_BODY.stream().anyMatch(name::equalsIgnoreCase)) {
      throw Refusals.argument(
          "The header \"" + name + "\" is derived from the body. Fix: remove it.");
    }
  }

  /**
   * Returns this answer with another value at some places of its JSON, for a recorded response that
   * needs one change.
   *
   * @param path a JSONPath (RFC 9535) or a JSON Pointer (RFC 6901)
   * @param value the new value; any object that Jackson can write, or null
   * @throws IllegalArgumentException if the path is malformed or matches nothing, if the body is
   *     not valid JSON, or if the value cannot be written
   */
  public ResponseAnswer replacing(String path, @Nullable Object value) {
    JsonQuery query = JsonQuery.parse(path);
    JsonNode root = Json.read("replacing(path, value)", response.text());
    JsonNode written =
        value == null
            ? NullNode.getInstance()
            : Json.tree(Json.write("replacing(path, value)", value, Json.mapper()));
    JsonNode changed =
        JsonReplacement.of(root, query, written)
            .orElseThrow(
                () ->
                    Refusals.argument(
                        String.format(
                            "replacing(\"%s\", ...) finds nothing to replace: %s.",
                            path, query.whyNothing(root).orElse("nothing is there"))));
    return with(
        new Response(
            response.status(),
            response.headers(),
            Body.of(changed.toString(), response.headers().charset()),
            response.trailers()));
  }

  /**
   * Returns this answer with an additional cookie (RFC 6265 section 4.1).
   *
   * @param attributes as in the header: {@code "Path=/"}, {@code "HttpOnly"}
   * @throws IllegalArgumentException if the name, the value or an attribute is invalid
   */
  public ResponseAnswer cookie(String name, String value, String... attributes) {
    return with(
        response.headers().and("set-cookie", SetCookie.of(name, value, Arrays.asList(attributes))));
  }

  /**
   * Returns this answer with an entity tag: a request with this tag in {@code if-none-match} gets
   * 304.
   *
   * @param tag the tag with or without quotes; {@code W/"..."} for a weak one
   */
  public ResponseAnswer etag(String tag) {
    Refusals.given("etag(tag)", tag);
    boolean quoted = tag.startsWith("\"") || tag.startsWith("W/\"");
    return header("etag", quoted ? tag : "\"" + tag + "\"");
  }

  /** Returns this answer in gzip, even if the request does not accept it. */
  public ResponseAnswer gzip() {
    return with(delivery.with(Encoding.GZIP));
  }

  /** Returns this answer in deflate, even if the request does not accept it. */
  public ResponseAnswer deflate() {
    return with(delivery.with(Encoding.DEFLATE));
  }

  /** Returns this answer in gzip or deflate if the request accepts it (RFC 9110 section 12.5.3). */
  public ResponseAnswer compressed() {
    return with(delivery.with(Encoding.NEGOTIATED));
  }

  /**
   * Returns this answer with support for byte ranges: a range request gets that range (RFC 9110
   * section 14).
   */
  public ResponseAnswer ranges() {
    return with(delivery.inRanges());
  }

  /**
   * Returns this answer with another content type; its text keeps its encoding in bytes.
   *
   * @throws IllegalArgumentException if it is null, or malformed
   */
  public ResponseAnswer contentType(String mediaType) {
    return header("content-type", mediaType);
  }

  /**
   * Returns this answer with its text in another charset, which its content type names. Files are
   * sent unchanged; only their content type changes.
   *
   * @throws IllegalStateException if its content type cannot have a charset
   */
  public ResponseAnswer charset(Charset charset) {
    Refusals.given("charset(charset)", charset);
    MediaType type =
        response
            .headers()
            .contentType()
            .orElseThrow(
                () ->
                    Refusals.state(
                        "The content type of this answer cannot have a charset. Fix: set it with"
                            + " .header(\"content-type\", ...)."));
    Headers headers =
        response
            .headers()
            .with(
                "content-type",
                new MediaType(type.type(), type.subtype(), Optional.of(charset)).toString());
    return with(
        new Response(
            response.status(), headers, Body.of(response.text(), charset), response.trailers()));
  }

  /**
   * Returns this answer with an additional trailer field, sent after the body (RFC 9110 section
   * 6.5).
   */
  public ResponseAnswer trailer(String name, String value) {
    return with(
        new Response(
            response.status(),
            response.headers(),
            response.body(),
            response.trailers().and(name, value)));
  }

  /**
   * Returns this answer as a template: each {@code ${...}} in its text and headers is filled from
   * the request; see {@link Answers#template} for the expressions.
   *
   * @throws IllegalArgumentException if an expression is unknown; the message names it
   */
  public ResponseAnswer templated() {
    Template.check(response.text());
    response.headers().forEach(header -> Template.check(header.value()));
    return with(delivery.asTemplate());
  }

  /**
   * Returns this answer with its file streamed from disk for each call, never held in memory; for
   * files of any size. Templates, encodings and ranges do not apply, and the log has the response
   * without its body.
   *
   * @throws IllegalStateException if it was not created by {@link Answers#file}, or if its content
   *     is needed
   */
  public ResponseAnswer streamed() {
    boolean ofFile = delivery.source().filter(source -> !source.onClassPath()).isPresent();
    if (!ofFile || delivery.needsContent()) {
      throw Refusals.state(
          "Only the unchanged content of a file can be streamed from disk, without template,"
              + " encoding or ranges. Fix: begin with file(path).streamed().");
    }
    return with(delivery.fromDisk());
  }

  /** Returns the response. */
  public Response response() {
    return response;
  }

  /** Returns how it is prepared for a request. */
  Delivery delivery() {
    return delivery;
  }

  /** Returns this answer with the content of its file. */
  ResponseAnswer read(Body content) {
    ResponseAnswer read =
        new ResponseAnswer(
            new Response(response.status(), response.headers(), content, response.trailers()),
            delivery.from(Optional.empty()),
            timing);
    return delivery.template() ? read.templated() : read;
  }

  @Override
  Timing timing() {
    return timing;
  }

  @Override
  ResponseAnswer timed(Timing other) {
    return new ResponseAnswer(response, delivery, other);
  }

  private ResponseAnswer with(Response other) {
    return new ResponseAnswer(other, delivery, timing);
  }

  private ResponseAnswer with(Headers headers) {
    return with(new Response(response.status(), headers, response.body(), response.trailers()));
  }

  private ResponseAnswer with(Delivery other) {
    return new ResponseAnswer(response, other, timing);
  }

  /** Returns the status and the size of the body. */
  @Override
  public String toString() {
    return response.status()
        + " "
        + delivery.source().map(Delivery.Source::name).orElse(response.body().toString());
  }
}
