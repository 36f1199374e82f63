// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.http.Body;
import dev.cachette.http.Header;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import java.util.Optional;
import java.util.stream.Collectors;

/**
 * Lets web pages of other origins call, and read the answers, explanations included: the CORS
 * protocol of the Fetch standard.
 */
final class CrossOrigin {

  private static final String ORIGIN = "origin";
  private static final String METHOD = "access-control-request-method";
  private static final String HEADERS = "access-control-request-headers";
  private static final String ALLOWED = "access-control-allow-origin";

  private CrossOrigin() {}

  /** Returns true if a page makes the call. */
  static boolean isByPage(Request request) {
    return request.headers().has(ORIGIN);
  }

  /** Returns true if a browser asks whether a page may make a call. */
  static boolean isPreflight(Request request) {
    return request.method().equals("OPTIONS") && isByPage(request) && request.headers().has(METHOD);
  }

  /** Returns the response that allows the call. */
  static Response preflight(Request request) {
    Headers headers =
        Headers.none()
            .with("access-control-allow-methods", request.headers().first(METHOD).orElseThrow())
            .with("access-control-max-age", "600");
    Optional<String> asked = request.headers().first(HEADERS);
    if (asked.isPresent()) {
      headers = headers.with("access-control-allow-headers", asked.get());
    }
    return new Response(204, headers, Body.empty());
  }

  /** Returns a reply that the page may read, unless it says itself which pages may. */
  static Reply allowed(Request request, Reply reply) {
    Optional<String> origin = request.headers().first(ORIGIN);
    Optional<Response> response = reply.response();
    if (origin.isEmpty() || response.isEmpty() || response.get().headers().has(ALLOWED)) {
      return reply;
    }
    Headers headers = response.get().headers();
    String exposed =
        headers.stream().map(Header::name).distinct().collect(Collectors.joining(", "));
    Headers allowed =
        headers
            .with(ALLOWED, origin.get())
            .with("access-control-allow-credentials", "true")
            .and("vary", ORIGIN);
    if (!exposed.isEmpty()) {
      allowed = allowed.with("access-control-expose-headers", exposed);
    }
    return reply.with(
        new Response(
            response.get().status(), allowed, response.get().body(), response.get().trailers()));
  }
}
