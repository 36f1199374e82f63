package dev.cachette.answer;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.NullNode;
import dev.cachette.answer.Delivery.Coding;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.MediaType;
import dev.cachette.http.Response;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.json.JsonQuery;
import dev.cachette.internal.json.JsonReplacement;
import dev.cachette.internal.render.Template;
import java.nio.charset.Charset;
import java.util.Arrays;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * An answer that is a plain response: a status, headers and a body. Every modifier returns a new
 * answer and leaves this one as it is.
 *
 * <p>Where it has an {@code etag} or {@code last-modified}, conditional requests are answered with
 * 304 or 412 (RFC 9110 section 13). A request by HEAD that no stub for HEAD answers is answered as
 * GET would be, without the body.
 */
public final class ResponseAnswer implements Answer, Timed<ResponseAnswer> {

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
   * An answer that is this response, however it was made.
   *
   * @throws IllegalArgumentException if the response is null
   */
  public static ResponseAnswer of(Response response) {
    if (response == null) {
      throw new IllegalArgumentException("of(response) was given null.");
    }
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
   * This answer with another status.
   *
   * @param code 200 to 599
   * @throws IllegalArgumentException if the code is another, or is 204, 205 or 304, which carry no
   *     content, and this answer has some
   */
  public ResponseAnswer status(int code) {
    if (code < 200 || code > 599) {
      throw new IllegalArgumentException(
          "A response has a status from 200 to 599, not " + code + ".");
    }
    boolean contentless = code == 204 || code == 205 || code == 304;
    if (contentless && (!response.body().isEmpty() || delivery.source().isPresent())) {
      throw new IllegalArgumentException(
          String.format(
              "A response with status %d carries no content, but this answer has %s. "
                  + "Mend: begin with Answers.status(%d).",
              code, delivery.source().isPresent() ? "a file" : response.body(), code));
    }
    return with(new Response(code, response.headers(), response.body(), response.trailers()));
  }

  /**
   * This answer with a header set: a header of that name that is already there is replaced, and
   * several values make several header fields, in this order.
   *
   * @throws IllegalArgumentException if there is no value, if the name or a value is malformed, or
   *     if the header is {@code content-length}, {@code transfer-encoding} or {@code trailer},
   *     which follow from the body
   */
  public ResponseAnswer header(String name, String... values) {
    requireFree(name, values);
    return with(response.headers().with(name, values));
  }

  static void requireFree(String name, String... values) {
    if (values == null || values.length == 0) {
      throw new IllegalArgumentException("The header \"" + name + "\" is given no value.");
    }
    if (name != null && FOLLOW_FROM_BODY.stream().anyMatch(name::equalsIgnoreCase)) {
      throw new IllegalArgumentException(
          "The header \"" + name + "\" follows from the body. Mend: leave it out.");
    }
  }

  /**
   * This answer with another value in some places of its JSON, for a recording that is right but
   * for one thing.
   *
   * @param path a JSONPath (RFC 9535) or a JSON Pointer (RFC 6901)
   * @param value what stands there then; any object that Jackson can write, or null
   * @throws IllegalArgumentException if the path is malformed or finds nothing, if the body is no
   *     JSON, or if the value cannot be written
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
                    new IllegalArgumentException(
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
   * This answer with a cookie more (RFC 6265 section 4.1).
   *
   * @param attributes as they stand in the header: {@code "Path=/"}, {@code "HttpOnly"}
   * @throws IllegalArgumentException if the name, the value or an attribute cannot stand in it
   */
  public ResponseAnswer cookie(String name, String value, String... attributes) {
    return with(
        response.headers().and("set-cookie", SetCookie.of(name, value, Arrays.asList(attributes))));
  }

  /**
   * This answer with an entity tag, so that a request with this tag in {@code if-none-match} is
   * answered 304.
   *
   * @param tag the tag with or without its quotes; {@code W/"..."} for a weak one
   */
  public ResponseAnswer etag(String tag) {
    if (tag == null) {
      throw new IllegalArgumentException("etag(tag) was given null.");
    }
    boolean quoted = tag.startsWith("\"") || tag.startsWith("W/\"");
    return header("etag", quoted ? tag : "\"" + tag + "\"");
  }

  /** This answer sent in gzip, whatever the request accepts. */
  public ResponseAnswer gzip() {
    return with(delivery.with(Coding.GZIP));
  }

  /** This answer sent in deflate, whatever the request accepts. */
  public ResponseAnswer deflate() {
    return with(delivery.with(Coding.DEFLATE));
  }

  /** This answer sent in gzip or deflate if the request accepts it (RFC 9110 section 12.5.3). */
  public ResponseAnswer compressed() {
    return with(delivery.with(Coding.NEGOTIATED));
  }

  /** This answer sent in ranges of bytes where the request asks for one (RFC 9110 section 14). */
  public ResponseAnswer ranges() {
    return with(delivery.inRanges());
  }

  /**
   * This answer with its text in another charset, which its content type then names. A file is sent
   * as it is; of that, only the content type changes.
   *
   * @throws IllegalStateException if it has no content type that could name a charset
   */
  public ResponseAnswer charset(Charset charset) {
    if (charset == null) {
      throw new IllegalArgumentException("charset(charset) was given null.");
    }
    MediaType type =
        response
            .headers()
            .contentType()
            .orElseThrow(
                () ->
                    new IllegalStateException(
                        "This answer has no content type that could name a charset. "
                            + "Mend: give it one with .header(\"content-type\", ...)."));
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

  /** This answer with a trailer field more, sent behind the body (RFC 9110 section 6.5). */
  public ResponseAnswer trailer(String name, String value) {
    return with(
        new Response(
            response.status(),
            response.headers(),
            response.body(),
            response.trailers().and(name, value)));
  }

  /**
   * This answer as a template: each {@code ${...}} in its text and headers is filled from the
   * request; see {@link Answers#template} for what can stand there.
   *
   * @throws IllegalArgumentException if an expression is none of these; the message says which
   */
  public ResponseAnswer templated() {
    Template.check(response.text());
    response.headers().forEach(header -> Template.check(header.value()));
    return with(delivery.asTemplate());
  }

  /**
   * This answer with its file sent piece by piece from the disk when it is called for, so that it
   * is never held in memory; for files of any size. What needs the content, a template, a coding or
   * a range, is not done to it, and the log has the response without its body.
   *
   * @throws IllegalStateException if it is not made by {@link Answers#file}, or if its content is
   *     needed
   */
  public ResponseAnswer streamed() {
    boolean ofFile = delivery.source().filter(source -> !source.onClassPath()).isPresent();
    if (!ofFile || delivery.needsContent()) {
      throw new IllegalStateException(
          "Only the plain content of a file can be sent from the disk, without template, coding or "
              + "ranges. Mend: begin with file(path).streamed().");
    }
    return with(delivery.fromDisk());
  }

  /** What is sent. */
  public Response response() {
    return response;
  }

  /** How it is made ready for a request. */
  public Delivery delivery() {
    return delivery;
  }

  /** This answer with the content of the file that it is read from. */
  public ResponseAnswer read(Body content) {
    ResponseAnswer read =
        new ResponseAnswer(
            new Response(response.status(), response.headers(), content, response.trailers()),
            delivery.from(Optional.empty()),
            timing);
    return delivery.template() ? read.templated() : read;
  }

  @Override
  public Timing timing() {
    return timing;
  }

  @Override
  public ResponseAnswer timed(Timing other) {
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

  /** Status and size of the body. */
  @Override
  public String toString() {
    return response.status()
        + " "
        + delivery.source().map(Delivery.Source::name).orElse(response.body().toString());
  }
}
