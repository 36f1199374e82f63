// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import dev.cachette.http.Response;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** The metadata of a provider (OpenID Connect Discovery, RFC 8414). */
final class Metadata {

  private Metadata() {}

  static Response of(Provider provider) {
    String issuer = provider.issuer();
    Map<String, Object> metadata = new LinkedHashMap<>();
    metadata.put("issuer", issuer);
    metadata.put("authorization_endpoint", EndpointPath.AUTHORIZATION.url(issuer));
    metadata.put("token_endpoint", EndpointPath.TOKEN.url(issuer));
    metadata.put("userinfo_endpoint", EndpointPath.USER_INFO.url(issuer));
    metadata.put("jwks_uri", EndpointPath.KEYS.url(issuer));
    metadata.put("introspection_endpoint", EndpointPath.INTROSPECTION.url(issuer));
    metadata.put("revocation_endpoint", EndpointPath.REVOCATION.url(issuer));
    metadata.put("end_session_endpoint", EndpointPath.LOGOUT.url(issuer));
    metadata.put("pushed_authorization_request_endpoint", EndpointPath.PUSHED.url(issuer));
    metadata.put("device_authorization_endpoint", EndpointPath.DEVICE_AUTHORIZATION.url(issuer));
    metadata.put(
        "scopes_supported",
        List.of("openid", "profile", "email", "address", "phone", "offline_access"));
    metadata.put("response_types_supported", List.of("code"));
    metadata.put("response_modes_supported", List.of("query", "fragment", "form_post"));
    metadata.put("grant_types_supported", Grants.SUPPORTED);
    metadata.put("subject_types_supported", List.of("public"));
    String algorithm = provider.keys().used().toString();
    metadata.put("id_token_signing_alg_values_supported", List.of(algorithm));
    metadata.put(
        "token_endpoint_auth_methods_supported",
        List.of(
            "client_secret_basic",
            "client_secret_post",
            "private_key_jwt",
            "self_signed_tls_client_auth",
            "none"));
    metadata.put(
        "token_endpoint_auth_signing_alg_values_supported", List.of("RS256", "ES256", "PS256"));
    metadata.put("dpop_signing_alg_values_supported", List.of("ES256", "RS256", "PS256"));
    metadata.put("code_challenge_methods_supported", List.of("S256"));
    metadata.put("prompt_values_supported", List.of("none", "login", "consent", "select_account"));
    metadata.put("authorization_response_iss_parameter_supported", true);
    metadata.put("backchannel_logout_supported", true);
    metadata.put("backchannel_logout_session_supported", false);
    metadata.put("claims_parameter_supported", false);
    metadata.put("request_uri_parameter_supported", true);
    return IdentityResponses.document(metadata);
  }
}
