// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import com.nimbusds.jwt.JWT;
import com.nimbusds.jwt.JWTClaimsSet;
import com.nimbusds.jwt.JWTParser;
import com.nimbusds.jwt.SignedJWT;
import dev.cachette.internal.text.DurationText;
import java.text.ParseException;
import java.time.Duration;
import java.time.Instant;
import java.util.HashSet;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;

/** Checks tokens that come back: whose they are, and whether they are still valid. Thread-safe. */
public final class IssuedTokens {

  private final String issuer;
  private final SigningKeys keys;
  private final Set<String> revoked = new HashSet<>();
  private long last;

  /** Tokens up to this one count as expired. */
  private long expired;

  IssuedTokens(String issuer, SigningKeys keys) {
    this.issuer = issuer;
    this.keys = keys;
  }

  /**
   * A token, and what is wrong with it.
   *
   * @param claims what it says; empty if it cannot be read
   * @param problem why it is not valid; empty if it is
   */
  public record Verdict(Optional<JWTClaimsSet> claims, Optional<String> problem) {

    private static Verdict refused(Optional<JWTClaimsSet> claims, String problem) {
      return new Verdict(claims, Optional.of(problem));
    }

    /** Returns a claim that is a string. */
    Optional<String> text(String claim) {
      return claims.map(it -> it.getClaim(claim)).map(Object::toString);
    }
  }

  /** Begins with another test. */
  synchronized void startAgain() {
    expired = 0;
    revoked.clear();
  }

  /** Returns a new identifier of a token. */
  synchronized String next() {
    last++;
    return last + "-" + UUID.randomUUID();
  }

  /** Lets all tokens so far count as expired. */
  public synchronized void expire() {
    expired = last;
  }

  /** Ends one token, or all of a session. */
  synchronized void revoke(String identifier) {
    revoked.add(identifier);
  }

  /** Checks a token. */
  public Verdict check(String token, Instant now) {
    JWT parsed;
    JWTClaimsSet claims;
    try {
      parsed = JWTParser.parse(token);
      claims = parsed.getJWTClaimsSet();
    } catch (ParseException malformed) {
      return Verdict.refused(Optional.empty(), "it was not issued by " + issuer);
    }
    return problem(parsed, claims, now)
        .map(problem -> Verdict.refused(Optional.of(claims), problem))
        .orElseGet(() -> new Verdict(Optional.of(claims), Optional.empty()));
  }

  private Optional<String> problem(JWT token, JWTClaimsSet claims, Instant now) {
    if (!issuer.equals(claims.getIssuer())) {
      return Optional.of("its issuer is " + claims.getIssuer() + ", not " + issuer);
    }
    if (!(token instanceof SignedJWT signed)) {
      return Optional.of("it has no signature");
    }
    if (!keys.haveSigned(signed)) {
      return Optional.of("it is not signed by a published key of " + issuer);
    }
    Instant expires = claims.getExpirationTime().toInstant();
    if (!now.isBefore(expires)) {
      return Optional.of("it expired " + DurationText.of(Duration.between(expires, now)) + " ago");
    }
    if (now.isBefore(claims.getNotBeforeTime().toInstant())) {
      return Optional.of("it is not valid before " + claims.getNotBeforeTime().toInstant());
    }
    return ended(claims);
  }

  private synchronized Optional<String> ended(JWTClaimsSet claims) {
    String identifier = claims.getJWTID();
    if (revoked.contains(identifier) || revoked.contains(claims.getClaim("sid"))) {
      return Optional.of("it was revoked");
    }
    return Long.parseLong(identifier.substring(0, identifier.indexOf('-'))) <= expired
        ? Optional.of("it has expired, by expireTokens()")
        : Optional.empty();
  }
}
