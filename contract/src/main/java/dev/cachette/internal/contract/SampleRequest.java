// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.http.Body;
import dev.cachette.http.Header;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Uri;
import dev.cachette.internal.body.AnswerForm;
import dev.cachette.internal.body.BodyFormats;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.json.StubNodes;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * A request that a consumer made, without what its client and the connection add.
 *
 * @param request the request, with placeholders for secrets
 */
public record SampleRequest(Request request) {

  /** Headers that say nothing of what the consumer wants, or differ with each call. */
  private static final Set<String> NOT_KEPT =
      Set.of(
          "accept-encoding",
          "b3",
          "baggage",
          "connection",
          "content-length",
          "date",
          "expect",
          "host",
          "http2-settings",
          "keep-alive",
          "proxy-connection",
          "te",
          "traceparent",
          "tracestate",
          "trailer",
          "transfer-encoding",
          "upgrade",
          "user-agent",
          "x-amzn-trace-id",
          "x-b3-parentspanid",
          "x-b3-sampled",
          "x-b3-spanid",
          "x-b3-traceid",
          "x-correlation-id",
          "x-request-id");

  /** Returns the sample of a request: decoded, without headers of client and connection. */
  static SampleRequest of(Request made) {
    List<Header> kept =
        made.headers().stream()
            .filter(it -> !NOT_KEPT.contains(it.name().toLowerCase(Locale.ROOT)))
            .filter(it -> !it.name().equalsIgnoreCase("content-encoding"))
            .map(it -> new Header(it.name().toLowerCase(Locale.ROOT), it.value()))
            .sorted((one, other) -> one.name().compareTo(other.name()))
            .toList();
    Body body = PlainBodies.of(made.headers(), made.body());
    return new SampleRequest(new Request(made.method(), made.uri(), Headers.of(kept), body));
  }

  /** Reads the form of contract files; a GET of nothing if there is none. */
  static SampleRequest read(@Nullable JsonNode form) {
    if (form == null || !form.isObject()) {
      return new SampleRequest(
          new Request("GET", Uri.parse("http://missing.invalid/"), Headers.none(), Body.empty()));
    }
    List<Header> headers = new ArrayList<>();
    form.path("headers")
        .properties()
        .forEach(
            it -> {
              if (it.getValue().isArray()) {
                it.getValue().forEach(each -> headers.add(new Header(it.getKey(), each.asText())));
              } else {
                headers.add(new Header(it.getKey(), it.getValue().asText()));
              }
            });
    return new SampleRequest(
        new Request(
            form.path("method").asText(),
            Uri.parse(form.path("url").asText()),
            Headers.of(headers),
            body(form)));
  }

  private static Body body(JsonNode form) {
    if (form.has("json")) {
      return Body.of(Json.text(form.get("json")));
    }
    if (form.has("base64")) {
      return Body.of(Base64.getDecoder().decode(form.get("base64").asText()));
    }
    return form.has("text") ? Body.of(form.get("text").asText()) : Body.empty();
  }

  /** Returns it in the form of contract files. */
  ObjectNode form() {
    ObjectNode form = StubNodes.object();
    form.put("method", request.method());
    form.put("url", request.uri().toString());
    if (request.headers().stream().findAny().isPresent()) {
      ObjectNode headers = form.putObject("headers");
      for (String name : request.headers().stream().map(Header::name).distinct().toList()) {
        List<String> values = request.headers().all(name);
        headers.set(
            name, values.size() == 1 ? StubNodes.text(values.get(0)) : StubNodes.texts(values));
      }
    }
    if (!request.body().isEmpty()) {
      body(form);
    }
    return form;
  }

  private void body(ObjectNode form) {
    Content content = Content.of(request.headers(), request.body());
    AnswerForm written = BodyFormats.answer(content);
    if (written.key().equals("json")) {
      form.set("json", written.value());
    } else if (BodyFormats.of(content).isText()) {
      form.put("text", content.text());
    } else {
      form.put("base64", Base64.getEncoder().encodeToString(content.bytes()));
    }
  }

  /** Returns the body as text. */
  String text() {
    return new String(request.body().bytes(), StandardCharsets.UTF_8);
  }
}
