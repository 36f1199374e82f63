// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import com.nimbusds.jwt.JWTClaimsSet;
import com.nimbusds.oauth2.sdk.ErrorObject;
import com.nimbusds.oauth2.sdk.OAuth2Error;
import dev.cachette.http.Response;
import dev.cachette.identity.option.IdentityRule;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * The endpoints for tokens that were issued: user info (OpenID Connect Core section 5.3),
 * introspection (RFC 7662), revocation (RFC 7009).
 */
final class TokenServices {

  private static final int UNAUTHORIZED = 401;

  private TokenServices() {}

  static Response userInfo(IdentityCall call) {
    if (call.hasInUrl("access_token")) {
      call.broken(
          IdentityRule.NOTHING_SECRET_IN_URLS,
          "access_token",
          "in the header authorization",
          "in the URL",
          "URLs are in the logs of servers and proxies (RFC 9700 section 4.3.2).",
          "send authorization: Bearer.");
      return refused(
          Optional.of(OAuth2Error.INVALID_REQUEST.setDescription("the token is in the URL")), 400);
    }
    TokenCheck.Outcome outcome =
        new TokenCheck(call.provider(), Set.of("openid"), Set.of(), Map.of())
            .of(call.request(), call.now());
    if (outcome.problem().isPresent()) {
      int status = outcome.error().map(ErrorObject::getHTTPStatusCode).orElse(UNAUTHORIZED);
      return refused(outcome.error(), status);
    }
    JWTClaimsSet token = outcome.claims().orElseThrow();
    Optional<User> user = call.provider().accounts().withSubject(token.getSubject());
    Map<String, Object> claims = new LinkedHashMap<>();
    claims.put("sub", token.getSubject());
    Set<String> scopes =
        new LinkedHashSet<>(Arrays.asList(String.valueOf(token.getClaim("scope")).split(" ")));
    user.ifPresent(it -> claims.putAll(UserClaims.of(it, scopes)));
    return IdentityResponses.json(200, claims);
  }

  private static Response refused(Optional<ErrorObject> error, int status) {
    return IdentityResponses.with(
        IdentityResponses.empty(status), "www-authenticate", Bearer.challenge("Bearer", error, ""));
  }

  static Response introspect(IdentityCall call) throws OAuthRefusal {
    ClientAuthenticator.authenticate(call);
    String token = token(call);
    Optional<StoredGrants.Refresh> refresh =
        call.provider().grants().refresh(token).filter(it -> call.now().isBefore(it.expires()));
    if (refresh.isPresent()) {
      Map<String, Object> members = new LinkedHashMap<>();
      members.put("active", true);
      members.put("client_id", refresh.get().grant().client());
      members.put("scope", refresh.get().grant().scope());
      members.put("exp", refresh.get().expires().getEpochSecond());
      return IdentityResponses.json(200, members);
    }
    IssuedTokens.Verdict verdict = call.provider().issued().check(token, call.now());
    if (verdict.problem().isPresent()) {
      return IdentityResponses.json(200, Map.of("active", false));
    }
    Map<String, Object> members = new LinkedHashMap<>();
    members.put("active", true);
    members.putAll(verdict.claims().orElseThrow().toJSONObject());
    members.put("token_type", "Bearer");
    verdict
        .text("sub")
        .flatMap(call.provider().accounts()::withSubject)
        .ifPresent(it -> members.put("username", it.name()));
    return IdentityResponses.json(200, members);
  }

  /** Unknown tokens are no error (RFC 7009 section 2.2). */
  static Response revoke(IdentityCall call) throws OAuthRefusal {
    ClientRecord client = ClientAuthenticator.authenticate(call);
    String token = token(call);
    Provider provider = call.provider();
    Optional<StoredGrants.Refresh> refresh = provider.grants().refresh(token);
    if (refresh.isPresent() && refresh.get().grant().client().equals(client.id())) {
      provider.grants().revoke(refresh.get().family());
      provider.issued().revoke(refresh.get().grant().session());
    }
    IssuedTokens.Verdict verdict = provider.issued().check(token, call.now());
    if (verdict.problem().isEmpty()
        && verdict.text("client_id").filter(client.id()::equals).isPresent()) {
      provider.issued().revoke(verdict.claims().orElseThrow().getJWTID());
    }
    return IdentityResponses.empty(200);
  }

  private static String token(IdentityCall call) throws OAuthRefusal {
    return call.parameter("token")
        .orElseThrow(() -> new OAuthRefusal(OAuth2Error.INVALID_REQUEST, "token is missing"));
  }
}
