// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases;

import dev.cachette.cassette.Exchange;
import dev.cachette.http.Body;
import dev.cachette.http.Header;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.http.Uri;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.uri.Percent;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The origin of the application: it writes its own into links, and into the URLs to which others
 * send users back. Messages of now are compared as if they were of the captured origin.
 */
public final class OwnOrigin {

  private final String now;
  private final String captured;
  private final Pattern plain;
  private final Pattern encoded;

  /**
   * Creates one.
   *
   * @param now the origin of now
   * @param captured the origin when it was captured
   */
  public OwnOrigin(String now, String captured) {
    this.now = now;
    this.captured = captured;
    this.plain = pattern(now);
    this.encoded = pattern(Percent.encodeForm(now));
  }

  private static Pattern pattern(String origin) {
    return Pattern.compile("(?i)" + Pattern.quote(origin) + "(?!\\d)");
  }

  private String in(String text) {
    String moved = plain.matcher(text).replaceAll(Matcher.quoteReplacement(captured));
    return encoded
        .matcher(moved)
        .replaceAll(Matcher.quoteReplacement(Percent.encodeForm(captured)));
  }

  private Headers in(Headers headers) {
    return Headers.of(headers.stream().map(it -> new Header(it.name(), in(it.value()))).toList());
  }

  /** Returns a request to another service as it would be at the captured origin. */
  Request in(Request request) {
    if (now.equals(captured)) {
      return request;
    }
    Uri uri = request.uri();
    return new Request(
        request.method(),
        new Uri(uri.scheme(), uri.host(), uri.port(), in(uri.path()), uri.rawQuery().map(this::in)),
        in(request.headers()),
        in(request.headers(), request.body()).orElse(request.body()));
  }

  /** Returns a response of the application as it would be at the captured origin. */
  public Exchange in(Exchange exchange) {
    if (now.equals(captured) || exchange.response().isEmpty()) {
      return exchange;
    }
    Response response = exchange.response().get();
    Headers headers = in(response.headers());
    Optional<Body> body = in(response.headers(), response.body());
    return exchange.with(
        new Response(
            response.status(),
            body.isPresent() ? headers.with("content-encoding") : headers,
            body.orElse(response.body()),
            response.trailers()));
  }

  /** Returns the decoded body; empty if the origin is not in it. */
  private Optional<Body> in(Headers headers, Body body) {
    String text = Content.of(headers, body).text();
    String moved = in(text);
    return moved.equals(text) ? Optional.empty() : Optional.of(Body.of(moved, headers.charset()));
  }
}
