// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import com.nimbusds.oauth2.sdk.ErrorObject;
import com.nimbusds.oauth2.sdk.util.URLUtils;
import dev.cachette.http.Response;
import java.net.URI;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * The response to an authorization request, by way of the user's browser.
 *
 * @param redirectUri where it goes
 * @param mode {@code query}, {@code fragment} or {@code form_post}
 * @param state what the client has sent
 * @param issuer against mix-up attacks (RFC 9207)
 */
record RedirectResponse(URI redirectUri, String mode, Optional<String> state, String issuer) {

  static RedirectResponse of(IdentityCall call, URI redirectUri) {
    String mode =
        call.parameter("response_mode")
            .filter(it -> it.equals("fragment") || it.equals("form_post"))
            .orElse("query");
    return new RedirectResponse(
        redirectUri, mode, call.parameter("state"), call.provider().issuer());
  }

  Response error(ErrorObject error) {
    Map<String, String> members = new LinkedHashMap<>();
    members.put("error", error.getCode());
    Optional.ofNullable(error.getDescription())
        .ifPresent(it -> members.put("error_description", it));
    return success(members);
  }

  Response success(Map<String, String> members) {
    Map<String, String> all = new LinkedHashMap<>(members);
    state.ifPresent(it -> all.put("state", it));
    all.put("iss", issuer);
    if (mode.equals("form_post")) {
      return Pages.post(redirectUri, all);
    }
    Map<String, List<String>> parameters = new LinkedHashMap<>();
    all.forEach((name, value) -> parameters.put(name, List.of(value)));
    String text = URLUtils.serializeParameters(parameters);
    String separator =
        mode.equals("fragment") ? "#" : redirectUri.getRawQuery() == null ? "?" : "&";
    return IdentityResponses.redirect(redirectUri + separator + text);
  }
}
