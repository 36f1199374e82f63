// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import com.nimbusds.oauth2.sdk.AuthorizationCodeGrant;
import com.nimbusds.oauth2.sdk.AuthorizationGrant;
import com.nimbusds.oauth2.sdk.ClientCredentialsGrant;
import com.nimbusds.oauth2.sdk.JWTBearerGrant;
import com.nimbusds.oauth2.sdk.OAuth2Error;
import com.nimbusds.oauth2.sdk.ParseException;
import com.nimbusds.oauth2.sdk.RefreshTokenGrant;
import com.nimbusds.oauth2.sdk.device.DeviceCodeGrant;
import com.nimbusds.oauth2.sdk.tokenexchange.TokenExchangeGrant;
import dev.cachette.http.Response;
import dev.cachette.identity.option.IdentityFault;
import dev.cachette.identity.option.IdentityRule;
import java.util.LinkedHashSet;
import java.util.Optional;
import java.util.Set;

/** Issues tokens (RFC 6749 section 3.2). */
final class TokenEndpoint {

  private TokenEndpoint() {}

  static Response respond(IdentityCall call) throws OAuthRefusal {
    ClientRecord client = ClientAuthenticator.authenticate(call);
    AuthorizationGrant wanted = wanted(call);
    Optional<String> key = ProofOfPossession.key(call, client);
    if (call.provider().faults().take(IdentityFault.INVALID_GRANT)) {
      throw new OAuthRefusal(OAuth2Error.INVALID_GRANT, "planned by the test");
    }
    if (wanted instanceof AuthorizationCodeGrant code) {
      return CodeRedemption.redeem(call, client, code, key);
    }
    if (wanted instanceof RefreshTokenGrant refresh) {
      return refreshed(call, client, refresh, key);
    }
    if (wanted instanceof ClientCredentialsGrant) {
      return ofClient(call, client, key);
    }
    if (wanted instanceof DeviceCodeGrant device) {
      return Devices.redeem(call, client, device, key);
    }
    if (wanted instanceof TokenExchangeGrant exchange) {
      return Assertions.exchange(call, client, exchange, key);
    }
    if (wanted instanceof JWTBearerGrant bearer) {
      return Assertions.grant(call, client, bearer, key);
    }
    throw new OAuthRefusal(
        OAuth2Error.UNSUPPORTED_GRANT_TYPE,
        "no grant_type " + wanted.getType() + "; supported: " + Grants.SUPPORTED);
  }

  private static AuthorizationGrant wanted(IdentityCall call) throws OAuthRefusal {
    try {
      return AuthorizationGrant.parse(call.http().getBodyAsFormParameters());
    } catch (ParseException malformed) {
      throw IdentityCall.malformed(malformed);
    }
  }

  private static Response ofClient(IdentityCall call, ClientRecord client, Optional<String> key)
      throws OAuthRefusal {
    if (call.provider().clients().isStrict() && client.isPublic()) {
      call.broken(
          IdentityRule.CLIENT_AUTHENTICATION,
          "client",
          "a client with credentials",
          client.id() + ", which has none",
          "Only such a client can act for itself (RFC 6749 section 4.4).",
          "declare its secret(...), or use another grant.");
      throw new OAuthRefusal(
          OAuth2Error.UNAUTHORIZED_CLIENT, "client_credentials needs a client with credentials");
    }
    Grant grant = Grants.of(call, client, Optional.empty());
    return new TokenResponse(call, grant.boundTo(key)).withoutRefresh();
  }

  private static Response refreshed(
      IdentityCall call, ClientRecord client, RefreshTokenGrant wanted, Optional<String> key)
      throws OAuthRefusal {
    String token = wanted.getRefreshToken().getValue();
    StoredGrants grants = call.provider().grants();
    Optional<StoredGrants.Refresh> replaced = grants.replaced(token);
    if (replaced.isPresent()) {
      grants.revoke(replaced.get().family());
      call.broken(
          IdentityRule.REFRESH_TOKEN_ONCE,
          "refresh_token",
          "the one of the last response",
          "one that was used before",
          "Refresh tokens are rotated: a provider takes this for theft, and ends all tokens"
              + " (RFC 9700 section 4.14.2).",
          "keep the new refresh token of each response.");
      throw new OAuthRefusal(OAuth2Error.INVALID_GRANT, "the refresh token was used before");
    }
    StoredGrants.Refresh known =
        grants
            .refresh(token)
            .filter(it -> it.grant().client().equals(client.id()))
            .orElseThrow(
                () -> new OAuthRefusal(OAuth2Error.INVALID_GRANT, "unknown refresh token"));
    if (!call.now().isBefore(known.expires())) {
      throw new OAuthRefusal(OAuth2Error.INVALID_GRANT, "the refresh token has expired");
    }
    ProofOfPossession.requireSame(known.grant(), key, client);
    Grant grant = narrowed(known.grant(), call.scopes()).boundTo(key);
    grants.replace(token);
    return new TokenResponse(call, grant).refreshing(known);
  }

  private static Grant narrowed(Grant grant, Set<String> wanted) throws OAuthRefusal {
    Set<String> foreign = new LinkedHashSet<>(wanted);
    foreign.removeAll(grant.scopes());
    if (!foreign.isEmpty()) {
      throw new OAuthRefusal(
          OAuth2Error.INVALID_SCOPE, "not granted before: " + String.join(" ", foreign));
    }
    return wanted.isEmpty() ? grant : grant.narrowed(wanted);
  }
}
