// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import com.nimbusds.oauth2.sdk.OAuth2Error;
import com.nimbusds.oauth2.sdk.ParseException;
import com.nimbusds.oauth2.sdk.http.HTTPRequest;
import com.nimbusds.oauth2.sdk.util.URLUtils;
import dev.cachette.http.Header;
import dev.cachette.http.Request;
import dev.cachette.identity.option.IdentityRule;
import dev.cachette.internal.engine.ServedService.ServedCall;
import dev.cachette.internal.explain.RequestText;
import dev.cachette.internal.finding.CheckText;
import dev.cachette.internal.scan.BodyType;
import dev.cachette.internal.text.Failed;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * A call of an endpoint.
 *
 * @param call the call
 * @param provider the provider
 * @param parameters those of the query, and of a form in the body
 */
record IdentityCall(ServedCall call, Provider provider, Map<String, List<String>> parameters) {

  static IdentityCall of(ServedCall call, Provider provider) {
    Request request = call.request();
    Map<String, List<String>> parameters =
        new LinkedHashMap<>(URLUtils.parseParameters(request.uri().rawQuery().orElse("")));
    if (isForm(request) && !request.body().isEmpty()) {
      parameters.putAll(URLUtils.parseParameters(text(request)));
    }
    return new IdentityCall(call, provider, parameters);
  }

  private static boolean isForm(Request request) {
    return request
        .headers()
        .first("content-type")
        .filter(it -> BodyType.of(it).isForm())
        .isPresent();
  }

  private static String text(Request request) {
    return new String(request.body().bytes(), StandardCharsets.UTF_8);
  }

  Request request() {
    return call.request();
  }

  /** Returns true if parameters in the body can be read; without a body, there are none. */
  boolean isForm() {
    return request().body().isEmpty() || isForm(request());
  }

  Instant now() {
    return call.now();
  }

  /** Returns it with other parameters. */
  IdentityCall with(Map<String, List<String>> others) {
    return new IdentityCall(call, provider, others);
  }

  /** Returns the scopes that the request asks for, in order. */
  Set<String> scopes() {
    return parameter("scope")
        .map(it -> (Set<String>) new LinkedHashSet<>(List.of(it.trim().split(" +"))))
        .orElse(Set.of());
  }

  /** Returns the first value of a parameter that is not empty. */
  Optional<String> parameter(String name) {
    return parameters.getOrDefault(name, List.of()).stream()
        .filter(it -> !it.isEmpty())
        .findFirst();
  }

  /** Returns true if a parameter is in the URL. */
  boolean hasInUrl(String name) {
    return URLUtils.parseParameters(request().uri().rawQuery().orElse("")).containsKey(name);
  }

  /** Returns the request for the parsers of the library. */
  HTTPRequest http() {
    HTTPRequest http =
        new HTTPRequest(
            HTTPRequest.Method.valueOf(request().method()),
            URI.create(request().uri().origin() + request().uri().path()));
    for (Header header : request().headers()) {
      try {
        http.setHeader(header.name(), header.value());
      } catch (IllegalArgumentException notOne) {
        // The parsers look at none of those.
      }
    }
    http.setBody(text(request()));
    call.certificate().ifPresent(http::setClientX509Certificate);
    return http;
  }

  /**
   * The client breaks a rule: its test fails, unless it may do so.
   *
   * @param place what is wrong
   * @param why what the rule is for
   * @param fix what the client should do
   */
  void broken(
      IdentityRule rule, String place, String expected, String actual, String why, String fix) {
    if (!provider.allows(rule)) {
      Check check = Check.missed(place, 0, Difference.of(expected, actual));
      call.failing()
          .accept(
              Failed.of(
                  String.format(
                      "The code under test uses the identity provider %s wrongly.\n\n%s\n%s\n%s\n"
                          + "Fix: %s If this is intentional, call allow(IdentityRule.%s).\n",
                      provider.issuer(),
                      RequestText.of(request()),
                      CheckText.lines(check),
                      why,
                      fix,
                      rule)));
    }
  }

  /** Returns the refusal of a request that cannot be understood. */
  static OAuthRefusal malformed(ParseException cause) {
    return new OAuthRefusal(
        cause.getErrorObject() == null ? OAuth2Error.INVALID_REQUEST : cause.getErrorObject(),
        cause.getMessage());
  }
}
