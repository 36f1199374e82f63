// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import com.nimbusds.oauth2.sdk.ErrorObject;
import com.nimbusds.oauth2.sdk.OAuth2Error;
import dev.cachette.http.Body;
import dev.cachette.http.Header;
import dev.cachette.http.Headers;
import dev.cachette.http.Response;
import dev.cachette.internal.json.Json;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Responses of an identity provider. */
final class IdentityResponses {

  private static final int FOUND = 302;
  private static final int UNAUTHORIZED = 401;

  private IdentityResponses() {}

  /** Returns JSON that may be kept, such as metadata. */
  static Response document(Object value) {
    return response(200, "application/json", Json.write("document", value, Json.mapper()));
  }

  /** Returns JSON that must not be kept, such as tokens (RFC 6749 section 5.1). */
  static Response json(int status, Map<String, ?> members) {
    return response(
        status,
        "application/json",
        Json.write("members", members, Json.mapper()),
        new Header("cache-control", "no-store"),
        new Header("pragma", "no-cache"));
  }

  /** Returns an error of OAuth 2 (RFC 6749 section 5.2). */
  static Response error(ErrorObject error) {
    Map<String, String> members = new LinkedHashMap<>();
    members.put("error", error.getCode());
    members.put("error_description", error.getDescription());
    int status = error.equals(OAuth2Error.INVALID_CLIENT) ? UNAUTHORIZED : 400;
    Response response = json(status, members);
    return status == UNAUTHORIZED
        ? with(response, "www-authenticate", "Basic realm=\"identity provider\"")
        : response;
  }

  static Response empty(int status) {
    return new Response(status, Headers.none(), Body.empty());
  }

  static Response redirect(String location) {
    return with(with(empty(FOUND), "location", location), "cache-control", "no-store");
  }

  static Response page(int status, String html) {
    return response(
        status, "text/html; charset=utf-8", html, new Header("cache-control", "no-store"));
  }

  static Response with(Response response, String header, String value) {
    return new Response(
        response.status(),
        response.headers().with(header, value),
        response.body(),
        response.trailers());
  }

  private static Response response(int status, String type, String text, Header... more) {
    List<Header> headers = new ArrayList<>(List.of(new Header("content-type", type)));
    headers.addAll(List.of(more));
    return new Response(status, Headers.of(headers), Body.of(text));
  }
}
