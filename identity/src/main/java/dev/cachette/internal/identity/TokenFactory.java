// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import com.nimbusds.jose.JOSEObjectType;
import com.nimbusds.jose.JWSAlgorithm;
import com.nimbusds.jose.JWSHeader;
import com.nimbusds.jose.jwk.Curve;
import com.nimbusds.jwt.JWTClaimsSet;
import com.nimbusds.jwt.PlainJWT;
import com.nimbusds.oauth2.sdk.token.BearerAccessToken;
import com.nimbusds.openid.connect.sdk.claims.AccessTokenHash;
import dev.cachette.identity.option.IdentityFault;
import java.text.ParseException;
import java.time.Duration;
import java.time.Instant;
import java.util.Date;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.function.Supplier;

/** Makes tokens: access tokens as JWT (RFC 9068), ID tokens, logout tokens. Thread-safe. */
final class TokenFactory {

  private static final Duration HOUR = Duration.ofHours(1);
  private static final String ELSEWHERE = "https://another-issuer.example";

  private final String issuer;
  private final SigningKeys keys;
  private final Accounts accounts;
  private final IssuedTokens issued;
  private final Supplier<Lifetimes> lifetimes;

  TokenFactory(
      String issuer,
      SigningKeys keys,
      Accounts accounts,
      IssuedTokens issued,
      Supplier<Lifetimes> lifetimes) {
    this.issuer = issuer;
    this.keys = keys;
    this.accounts = accounts;
    this.issued = issued;
    this.lifetimes = lifetimes;
  }

  /** Returns an access token. */
  String accessToken(Grant grant, Instant now, Optional<IdentityFault> fault) {
    JWTClaimsSet.Builder claims = begin(now, lifetimes.get().accessToken(), fault);
    Optional<User> user = grant.user().flatMap(accounts::named);
    user.ifPresent(it -> UserClaims.custom(it).forEach(claims::claim));
    claims
        .subject(user.map(User::subject).orElse(grant.client()))
        .audience(audience(grant.audience(), fault))
        .claim("client_id", grant.client())
        .claim("sid", grant.session());
    if (!grant.scopes().isEmpty()) {
      claims.claim("scope", grant.scope());
    }
    grant.thumbprint().ifPresent(it -> claims.claim("cnf", Map.of("jkt", it)));
    grant.actor().ifPresent(it -> claims.claim("act", Map.of("sub", it)));
    return signed(claims.build(), JOSEObjectType.JWT, fault);
  }

  /** Returns an ID token, with the hash of the access token beside it. */
  String idToken(
      Grant grant, User user, String accessToken, Instant now, Optional<IdentityFault> fault) {
    JWTClaimsSet.Builder claims = begin(now, lifetimes.get().idToken(), fault);
    UserClaims.of(user, grant.scopes()).forEach(claims::claim);
    claims
        .subject(user.subject())
        .audience(audience(List.of(grant.client()), fault))
        .claim("azp", grant.client())
        .claim("auth_time", grant.signedIn().getEpochSecond())
        .claim("sid", grant.session())
        .claim("at_hash", hash(accessToken));
    boolean isWrong = is(IdentityFault.WRONG_NONCE, fault);
    grant
        .nonce()
        .map(it -> isWrong ? UUID.randomUUID().toString() : it)
        .ifPresent(it -> claims.claim("nonce", it));
    return signed(claims.build(), JOSEObjectType.JWT, fault);
  }

  /** Returns a logout token (OpenID Connect Back-Channel Logout section 2.4). */
  String logoutToken(String client, User user, Instant now) {
    JWTClaimsSet.Builder claims =
        begin(now, Duration.ofMinutes(2), Optional.empty())
            .subject(user.subject())
            .audience(client)
            .claim(
                "events", Map.of("http://schemas.openid.net/event/backchannel-logout", Map.of()));
    return signed(claims.build(), new JOSEObjectType("logout+jwt"), Optional.empty());
  }

  /**
   * Returns a token with the claims of one that was recorded, for now.
   *
   * @return empty if the recorded one is of another issuer
   */
  Optional<String> signAgain(String recorded, Optional<String> nonce, Instant now) {
    try {
      JWTClaimsSet claims = JWTClaimsSet.parse(recorded);
      if (!issuer.equals(claims.getIssuer())) {
        return Optional.empty();
      }
      boolean isAccess = claims.getClaim("scope") != null || claims.getClaim("scp") != null;
      Duration lifetime = isAccess ? lifetimes.get().accessToken() : lifetimes.get().idToken();
      JWTClaimsSet.Builder again = begin(now, lifetime, Optional.empty());
      claims.getClaims().forEach(again::claim);
      if (!isAccess) {
        again.claim("auth_time", now.getEpochSecond());
        nonce.ifPresent(it -> again.claim("nonce", it));
      }
      return Optional.of(signed(again.build(), JOSEObjectType.JWT, Optional.empty()));
    } catch (ParseException malformed) {
      throw new IllegalArgumentException(
          "the claims of a recorded token are invalid: " + malformed.getMessage(), malformed);
    }
  }

  private JWTClaimsSet.Builder begin(
      Instant now, Duration lifetime, Optional<IdentityFault> fault) {
    Duration shift = Duration.ZERO;
    if (is(IdentityFault.EXPIRED, fault)) {
      shift = HOUR.plus(lifetime).negated();
    } else if (is(IdentityFault.NOT_YET_VALID, fault)) {
      shift = HOUR;
    }
    Instant begins = now.plus(shift);
    return new JWTClaimsSet.Builder()
        .issuer(is(IdentityFault.WRONG_ISSUER, fault) ? ELSEWHERE : issuer)
        .issueTime(Date.from(begins))
        .notBeforeTime(Date.from(begins))
        .expirationTime(Date.from(begins.plus(lifetime)))
        .jwtID(issued.next());
  }

  private static boolean is(IdentityFault wanted, Optional<IdentityFault> fault) {
    return fault.isPresent() && fault.get() == wanted;
  }

  private static List<String> audience(List<String> right, Optional<IdentityFault> fault) {
    return is(IdentityFault.WRONG_AUDIENCE, fault) ? List.of("another-audience") : right;
  }

  private String signed(JWTClaimsSet claims, JOSEObjectType type, Optional<IdentityFault> fault) {
    if (is(IdentityFault.UNSIGNED, fault)) {
      return new PlainJWT(claims).serialize();
    }
    SigningKey named = keys.current();
    SigningKey signing = named;
    if (is(IdentityFault.UNKNOWN_KEY, fault)) {
      named = keys.unknown();
      signing = named;
    } else if (is(IdentityFault.WRONG_SIGNATURE, fault)) {
      signing = keys.unknown();
    }
    return signing.sign(header(named, type), claims);
  }

  private static JWSHeader header(SigningKey key, JOSEObjectType type) {
    return new JWSHeader.Builder(key.algorithm())
        .keyID(key.published().getKeyID())
        .type(type)
        .build();
  }

  private String hash(String accessToken) {
    JWSAlgorithm algorithm = keys.current().algorithm();
    Curve curve = algorithm.equals(JWSAlgorithm.EdDSA) ? Curve.Ed25519 : null;
    return AccessTokenHash.compute(new BearerAccessToken(accessToken), algorithm, curve).getValue();
  }
}
