package dev.cachette.internal.render;

import dev.cachette.answer.Delivery;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.http.Body;
import dev.cachette.http.Header;
import dev.cachette.http.Headers;
import dev.cachette.http.MediaType;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.internal.content.ContentCoding;
import dev.cachette.match.Received;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;

/** Makes the response to one request of an answer. */
public final class Rendering {

  private Rendering() {}

  /**
   * The response.
   *
   * @param count which call of the stub it is, from 1
   * @throws IllegalStateException if a template asks for what the request does not have
   */
  public static Response of(ResponseAnswer answer, Received received, int count, Tallies tallies) {
    Request request = received.request();
    Delivery delivery = answer.delivery();
    Response filled =
        delivery.template()
            ? filled(answer.response(), new TemplateValues(received, count, tallies))
            : answer.response();
    Optional<Response> decided = Preconditions.decide(request, filled);
    if (decided.isPresent()) {
      return decided.get();
    }
    Response coded = coded(filled, delivery.coding(), request.headers());
    Response whole = delivery.ranges() ? Ranges.apply(request, coded) : coded;
    return request.method().equals("HEAD") ? withoutBody(whole) : whole;
  }

  private static Response filled(Response response, TemplateValues values) {
    Optional<MediaType> type = response.headers().contentType();
    String text = Template.fill(response.text(), values, Template.escapeFor(type));
    List<Header> headers =
        response.headers().stream()
            .map(
                header ->
                    new Header(
                        header.name(),
                        Template.fill(header.value(), values, UnaryOperator.identity())))
            .toList();
    Body body = Body.of(text, type.map(MediaType::charsetOrDefault).orElse(StandardCharsets.UTF_8));
    return new Response(response.status(), Headers.of(headers), body, response.trailers());
  }

  private static Response coded(Response response, Delivery.Coding coding, Headers asked) {
    if (coding == Delivery.Coding.NONE) {
      return response;
    }
    Optional<ContentCoding> chosen =
        switch (coding) {
          case NONE -> Optional.empty();
          case GZIP -> Optional.of(ContentCoding.GZIP);
          case DEFLATE -> Optional.of(ContentCoding.DEFLATE);
          case NEGOTIATED -> Negotiation.accepted(asked);
        };
    Headers headers =
        coding == Delivery.Coding.NEGOTIATED
            ? response.headers().and("vary", "accept-encoding")
            : response.headers();
    if (chosen.isEmpty() || response.body().isEmpty()) {
      return new Response(response.status(), headers, response.body(), response.trailers());
    }
    return new Response(
        response.status(),
        headers.with("content-encoding", chosen.get().token()),
        Body.of(chosen.get().encode(response.body().bytes())),
        response.trailers());
  }

  /** What GET would be answered with, but for the content (RFC 9110 section 9.3.2). */
  private static Response withoutBody(Response response) {
    return new Response(
        response.status(),
        response.headers().with("content-length", Integer.toString(response.body().size())),
        Body.empty());
  }
}
