// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.render;

import dev.cachette.answer.AnswerInternals;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.http.Body;
import dev.cachette.http.Header;
import dev.cachette.http.Headers;
import dev.cachette.http.MediaType;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.internal.answer.Delivery;
import dev.cachette.internal.body.BodyFormats;
import dev.cachette.internal.content.ContentEncoding;
import dev.cachette.internal.template.Template;
import dev.cachette.internal.template.TemplateState;
import dev.cachette.internal.template.TemplateValues;
import dev.cachette.match.Received;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;

/** Renders an answer as the response to one request. */
public final class Rendering {

  private Rendering() {}

  /**
   * Returns the response.
   *
   * @param count the number of this call of the stub, from 1
   * @throws IllegalStateException if a template needs a value that the request does not have
   */
  public static Response of(
      ResponseAnswer answer, Received received, int count, TemplateState templateState) {
    Request request = received.request();
    Delivery delivery = AnswerInternals.delivery(answer);
    Response filled =
        delivery.template()
            ? filled(answer.response(), new TemplateValues(received, count, templateState))
            : answer.response();
    Optional<Response> decided = Preconditions.decide(request, filled);
    if (decided.isPresent()) {
      return decided.get();
    }
    Response coded = coded(filled, delivery.encoding(), request.headers());
    Response whole = delivery.ranges() ? Ranges.apply(request, coded) : coded;
    return request.method().equals("HEAD") ? withoutBody(whole) : whole;
  }

  private static Response filled(Response response, TemplateValues values) {
    Optional<MediaType> type = response.headers().contentType();
    String text =
        Template.fill(
            response.text(),
            values,
            BodyFormats.named(response.headers().first("content-type"))::escaped);
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

  private static Response coded(Response response, Delivery.Encoding encoding, Headers asked) {
    if (encoding == Delivery.Encoding.NONE) {
      return response;
    }
    Optional<ContentEncoding> chosen =
        switch (encoding) {
          case NONE -> Optional.empty();
          case GZIP -> Optional.of(ContentEncoding.GZIP);
          case DEFLATE -> Optional.of(ContentEncoding.DEFLATE);
          case NEGOTIATED -> Negotiation.accepted(asked);
        };
    Headers headers =
        encoding == Delivery.Encoding.NEGOTIATED
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

  /** Returns the response to GET without its content (RFC 9110 section 9.3.2). */
  private static Response withoutBody(Response response) {
    return new Response(
        response.status(),
        response.headers().with("content-length", Integer.toString(response.body().size())),
        Body.empty());
  }
}
