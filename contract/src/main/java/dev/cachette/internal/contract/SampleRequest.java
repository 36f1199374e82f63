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
import java.nio.charset.Charset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Pattern;
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

  /** Headers that identify one request. */
  private static final Pattern IDENTIFIER =
      Pattern.compile("(?i).*(request|idempotency|message|transaction|operation)-?(id|key)");

  private static final Pattern UUID =
      Pattern.compile("\"?[0-9a-fA-F]{8}(-?[0-9a-fA-F]{4}){3}-?[0-9a-fA-F]{12}\"?");
  private static final String FIXED_UUID = "00000000-0000-4000-8000-000000000000";

  /** Returns the sample of a request: decoded, without headers of client and connection. */
  static SampleRequest of(Request made) {
    List<Header> kept =
        made.headers().stream()
            .filter(it -> !NOT_KEPT.contains(it.name().toLowerCase(Locale.ROOT)))
            .filter(it -> !it.name().equalsIgnoreCase("content-encoding"))
            .map(it -> new Header(it.name().toLowerCase(Locale.ROOT), fixed(it)))
            .sorted((one, other) -> one.name().compareTo(other.name()))
            .toList();
    Body body = PlainBodies.of(made.headers(), made.body());
    return new SampleRequest(new Request(made.method(), made.uri(), Headers.of(kept), body));
  }

  /** Returns a value; an identifier that differs with each request is always the same one. */
  private static String fixed(Header header) {
    return IDENTIFIER.matcher(header.name()).matches() && UUID.matcher(header.value()).matches()
        ? FIXED_UUID
        : header.value();
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
    Headers all = Headers.of(headers);
    return new SampleRequest(
        new Request(
            form.path("method").asText(),
            Uri.parse(form.path("url").asText()),
            all,
            body(form, all.charset())));
  }

  private static Body body(JsonNode form, Charset charset) {
    if (form.has("json")) {
      return Body.of(Json.text(form.get("json")));
    }
    if (form.has("base64")) {
      return Body.of(Base64.getDecoder().decode(form.get("base64").asText()));
    }
    return form.has("text") ? Body.of(form.get("text").asText().getBytes(charset)) : Body.empty();
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
    } else if (BodyFormats.of(content).isText() && isText(content)) {
      form.put("text", content.text());
    } else {
      form.put("base64", Base64.getEncoder().encodeToString(content.bytes()));
    }
  }

  /** Returns true if nothing is lost as text, as of files in a multipart body. */
  private boolean isText(Content content) {
    byte[] bytes = content.text().getBytes(request.headers().charset());
    return Arrays.equals(bytes, content.bytes());
  }
}
