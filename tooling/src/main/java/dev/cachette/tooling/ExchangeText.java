// SPDX-License-Identifier: Apache-2.0
package dev.cachette.tooling;

import dev.cachette.cassette.Exchange;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.internal.body.BodyFormats;
import dev.cachette.internal.content.Content;
import java.util.Optional;

/** An exchange as text for people, in full; bodies are decoded and laid out. */
public final class ExchangeText {

  private ExchangeText() {}

  /** Returns request and outcome, each with headers and body; JSON is formatted. */
  public static String of(Exchange exchange) {
    StringBuilder out = new StringBuilder(of(exchange.request()));
    out.append('\n').append(exchange.outcome()).append('\n');
    Optional<Response> response = exchange.response();
    if (response.isPresent()) {
      message(out, response.get().headers(), response.get().body());
      response.get().trailers().forEach(it -> out.append("trailer ").append(it).append('\n'));
    }
    return out.toString();
  }

  /** Appends request line, headers and body. */
  static String of(Request request) {
    StringBuilder out = new StringBuilder();
    out.append(request.method()).append(' ').append(request.uri()).append('\n');
    message(out, request.headers(), request.body());
    return out.toString();
  }

  private static void message(StringBuilder out, Headers headers, Body body) {
    headers.forEach(it -> out.append(it.name()).append(": ").append(it.value()).append('\n'));
    if (!body.isEmpty()) {
      out.append('\n').append(body(headers, body).stripTrailing()).append('\n');
    }
  }

  private static String body(Headers headers, Body body) {
    Content content = Content.of(headers, body);
    return content.encodingProblem().isEmpty()
        ? BodyFormats.of(content).shown(content)
        : "(" + body + ")";
  }
}
