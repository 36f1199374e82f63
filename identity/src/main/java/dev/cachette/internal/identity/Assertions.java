// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import com.nimbusds.jose.JOSEException;
import com.nimbusds.jose.crypto.factories.DefaultJWSVerifierFactory;
import com.nimbusds.jose.jwk.AsymmetricJWK;
import com.nimbusds.jose.jwk.JWK;
import com.nimbusds.jwt.JWTClaimsSet;
import com.nimbusds.jwt.SignedJWT;
import com.nimbusds.oauth2.sdk.JWTBearerGrant;
import com.nimbusds.oauth2.sdk.OAuth2Error;
import com.nimbusds.oauth2.sdk.tokenexchange.TokenExchangeGrant;
import dev.cachette.http.Response;
import java.text.ParseException;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Tokens for other tokens: token exchange (RFC 8693), and assertions of clients (RFC 7523). */
final class Assertions {

  private Assertions() {}

  /** Returns who has signed the assertion that is a grant; empty if there is none. */
  static Optional<String> issuer(IdentityCall call) {
    return call.parameter("grant_type")
        .filter(it -> it.endsWith(":jwt-bearer"))
        .flatMap(it -> call.parameter("assertion"))
        .flatMap(
            it -> {
              try {
                return Optional.ofNullable(SignedJWT.parse(it).getJWTClaimsSet().getIssuer());
              } catch (ParseException malformed) {
                return Optional.empty();
              }
            });
  }

  /** Issues a token for the subject of another token. */
  static Response exchange(
      IdentityCall call, ClientRecord client, TokenExchangeGrant wanted, Optional<String> key)
      throws OAuthRefusal {
    IssuedTokens.Verdict subject =
        call.provider().issued().check(wanted.getSubjectToken().getValue(), call.now());
    if (subject.problem().isPresent()) {
      throw new OAuthRefusal(
          OAuth2Error.INVALID_REQUEST, "the subject_token: " + subject.problem().get());
    }
    Optional<String> user =
        subject.text("sub").flatMap(call.provider().accounts()::withSubject).map(User::name);
    Grant grant = Grants.of(call, client, user).boundTo(key).actedBy(client.id());
    Map<String, Object> members = new TokenResponse(call, grant).tokens();
    members.put("issued_token_type", "urn:ietf:params:oauth:token-type:access_token");
    return IdentityResponses.json(200, members);
  }

  /** Issues a token for the subject of an assertion that the client has signed. */
  static Response grant(
      IdentityCall call, ClientRecord client, JWTBearerGrant wanted, Optional<String> key)
      throws OAuthRefusal {
    JWTClaimsSet claims = claims(call, client, wanted);
    String subject = Optional.ofNullable(claims.getSubject()).orElse(client.id());
    Optional<String> user = call.provider().accounts().withSubject(subject).map(User::name);
    if (user.isEmpty() && !subject.equals(client.id()) && !subject.equals(claims.getIssuer())) {
      throw new OAuthRefusal(OAuth2Error.INVALID_GRANT, "no user has the subject " + subject);
    }
    Grant grant = Grants.of(call, client, user).boundTo(key);
    return new TokenResponse(call, grant).withoutRefresh();
  }

  private static JWTClaimsSet claims(IdentityCall call, ClientRecord client, JWTBearerGrant wanted)
      throws OAuthRefusal {
    try {
      SignedJWT assertion = SignedJWT.parse(wanted.getAssertion());
      JWTClaimsSet claims = assertion.getJWTClaimsSet();
      Optional<ClientRecord> signer =
          Optional.ofNullable(claims.getIssuer()).flatMap(call.provider().clients()::known);
      List<JWK> keys =
          signer
              .flatMap(ClientRecord::keys)
              .or(client::keys)
              .map(it -> it.getKeys())
              .orElse(List.of());
      boolean isStrict = call.provider().clients().isStrict();
      if (isStrict && keys.stream().noneMatch(it -> hasSigned(it, assertion))) {
        throw refused("no declared key has signed it");
      }
      requireCurrent(call, claims);
      return claims;
    } catch (ParseException malformed) {
      throw refused(malformed.getMessage());
    }
  }

  private static void requireCurrent(IdentityCall call, JWTClaimsSet claims) throws OAuthRefusal {
    String issuer = call.provider().issuer();
    if (!claims.getAudience().contains(issuer)
        && !claims.getAudience().contains(EndpointPath.TOKEN.url(issuer))) {
      throw refused("its audience is " + claims.getAudience() + ", not " + issuer);
    }
    // The client has made it with the time of the system, not with that of the session.
    if (claims.getExpirationTime() == null
        || !Instant.now().isBefore(claims.getExpirationTime().toInstant())) {
      throw refused("it has expired, or has no exp");
    }
  }

  private static OAuthRefusal refused(String why) {
    return new OAuthRefusal(OAuth2Error.INVALID_GRANT, "the assertion: " + why);
  }

  private static boolean hasSigned(JWK key, SignedJWT assertion) {
    try {
      return key instanceof AsymmetricJWK pair
          && assertion.verify(
              new DefaultJWSVerifierFactory()
                  .createJWSVerifier(assertion.getHeader(), pair.toPublicKey()));
    } catch (JOSEException ofAnotherKind) {
      return false;
    }
  }
}
