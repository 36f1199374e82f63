// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import com.nimbusds.oauth2.sdk.OAuth2Error;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.http.Uri;
import dev.cachette.identity.option.IdentityFault;
import dev.cachette.internal.engine.ServedService;
import dev.cachette.result.StubReference;
import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** The endpoints of a provider. */
public final class IdentityService implements ServedService {

  private static final int NOT_ALLOWED = 405;
  private static final int UNAVAILABLE = 503;

  private final Provider provider;
  private final LogoutNotices notices;
  private final Uri issuer;

  /** Creates it. */
  public IdentityService(Provider provider, LogoutNotices notices) {
    this.provider = provider;
    this.notices = notices;
    this.issuer = Uri.parse(provider.issuer());
  }

  @Override
  public boolean isAt(String host, int port) {
    return issuer.host().equals(host) && issuer.port() == port;
  }

  private Optional<EndpointPath> endpoint(Request request) {
    String base = issuer.path().equals("/") ? "" : issuer.path();
    return EndpointPath.at(request.uri().path(), base);
  }

  @Override
  public Optional<StubReference> resource(Request request) {
    return endpoint(request)
        .map(it -> new StubReference(it.text(), "identity provider " + provider.issuer()));
  }

  @Override
  public Response respond(ServedCall served) {
    IdentityCall call = IdentityCall.of(served, provider);
    EndpointPath endpoint = endpoint(served.request()).orElseThrow();
    if (provider.faults().take(IdentityFault.UNAVAILABLE)) {
      return IdentityResponses.with(
          IdentityResponses.json(UNAVAILABLE, Map.of("error", IdentityFault.UNAVAILABLE.code())),
          "retry-after",
          "1");
    }
    Optional<Response> refused = wrongMethod(served.request(), endpoint);
    if (refused.isPresent()) {
      return refused.get();
    }
    if (served.request().method().equals("POST") && !call.isForm()) {
      return IdentityResponses.error(
          OAuth2Error.INVALID_REQUEST.setDescription(
              "the body must be application/x-www-form-urlencoded, not "
                  + served.request().headers().first("content-type").orElse("without a type")));
    }
    try {
      return respond(call, endpoint);
    } catch (OAuthRefusal refusal) {
      return IdentityResponses.error(refusal.error());
    }
  }

  private Response respond(IdentityCall call, EndpointPath endpoint) throws OAuthRefusal {
    return switch (endpoint) {
      case OPENID_CONFIGURATION, SERVER_METADATA -> Metadata.of(provider);
      case KEYS -> IdentityResponses.document(provider.keys().published().toJSONObject());
      case AUTHORIZATION -> AuthorizationEndpoint.respond(call);
      case PUSHED -> PushedRequests.push(call);
      case TOKEN -> TokenEndpoint.respond(call);
      case USER_INFO -> TokenServices.userInfo(call);
      case INTROSPECTION -> TokenServices.introspect(call);
      case REVOCATION -> TokenServices.revoke(call);
      case LOGOUT -> LogoutEndpoint.respond(call, notices);
      case DEVICE_AUTHORIZATION -> Devices.authorize(call);
      case DEVICE -> Devices.page(call);
    };
  }

  private static Optional<Response> wrongMethod(Request request, EndpointPath endpoint) {
    String allowed =
        switch (endpoint) {
          case OPENID_CONFIGURATION, SERVER_METADATA, KEYS -> "GET, HEAD";
          case AUTHORIZATION, USER_INFO, LOGOUT, DEVICE -> "GET, POST";
          case PUSHED, TOKEN, INTROSPECTION, REVOCATION, DEVICE_AUTHORIZATION -> "POST";
        };
    return Stream.of(allowed.split(", ")).anyMatch(request.method()::equals)
        ? Optional.empty()
        : Optional.of(
            IdentityResponses.with(IdentityResponses.empty(NOT_ALLOWED), "allow", allowed));
  }

  @Override
  public boolean replacesRecorded(Request request) {
    return endpoint(request).filter(EndpointPath::isMetadata).isPresent();
  }

  @Override
  public Optional<String> sign(String claims, Optional<String> nonce, Instant now) {
    return provider.tokens().signAgain(claims, nonce, now);
  }

  @Override
  public String description() {
    return Stream.of(EndpointPath.values())
        .map(it -> it.url(provider.issuer()))
        .collect(
            Collectors.joining(
                "\n  ", "\n" + provider.issuer() + " is an identity provider with:\n  ", "\n"));
  }

  @Override
  public void startAgain() {
    provider.startAgain();
  }
}
