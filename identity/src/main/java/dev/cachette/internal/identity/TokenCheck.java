// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import com.nimbusds.jwt.JWTClaimsSet;
import com.nimbusds.oauth2.sdk.ErrorObject;
import com.nimbusds.oauth2.sdk.http.HTTPRequest;
import com.nimbusds.oauth2.sdk.token.BearerTokenError;
import dev.cachette.http.Request;
import java.net.URI;
import java.time.Instant;
import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * The requirements of a resource for the token of a request.
 *
 * @param scopes the scopes that it must have
 * @param audience the audience that it must have one of; empty for any
 * @param claims the claims that it must have, with their values
 */
public record TokenCheck(
    Provider provider, Set<String> scopes, Set<String> audience, Map<String, String> claims) {

  /**
   * The result.
   *
   * @param claims those of the token, if it is valid
   * @param problem what is wrong, in words; empty if it is valid
   * @param error what the client gets; empty if it has sent no token
   */
  public record Outcome(
      Optional<JWTClaimsSet> claims, Optional<String> problem, Optional<ErrorObject> error) {

    private static Outcome refused(BearerTokenError error, String problem) {
      return new Outcome(
          Optional.empty(), Optional.of(problem), Optional.of(error.setDescription(problem)));
    }
  }

  /** Copies the collections. */
  public TokenCheck {
    scopes = new LinkedHashSet<>(scopes);
    audience = new LinkedHashSet<>(audience);
    claims = Map.copyOf(claims);
  }

  /** Tests the token of a request. */
  public Outcome of(Request request, Instant now) {
    Optional<Bearer.Sent> sent = Bearer.in(request);
    if (sent.isEmpty()) {
      return new Outcome(
          Optional.empty(), Optional.of("the request has no token"), Optional.empty());
    }
    IssuedTokens.Verdict verdict = provider.issued().check(sent.get().token(), now);
    Optional<String> problem =
        verdict
            .problem()
            .or(() -> kind(verdict.claims().orElseThrow()))
            .or(() -> binding(request, sent.get(), verdict.claims().orElseThrow()));
    if (problem.isPresent()) {
      return Outcome.refused(BearerTokenError.INVALID_TOKEN, problem.get());
    }
    return allowed(verdict.claims().orElseThrow());
  }

  /** An ID token says who signed in, and is for the client alone. */
  private static Optional<String> kind(JWTClaimsSet claims) {
    return claims.getClaim("client_id") == null
        ? Optional.of("it is an ID token, not an access token")
        : Optional.empty();
  }

  private Optional<String> binding(Request request, Bearer.Sent sent, JWTClaimsSet claims) {
    if (!(claims.getClaim("cnf") instanceof Map<?, ?> confirmation)) {
      return sent.scheme().equals("dpop")
          ? Optional.of("it is not bound to a key, and was sent as DPoP")
          : Optional.empty();
    }
    HTTPRequest http = new HTTPRequest(HTTPRequest.Method.GET, URI.create(provider.issuer()));
    request.headers().first("dpop").ifPresent(it -> http.setHeader("DPoP", it));
    return ProofOfPossession.problem(
        request, http, sent.token(), String.valueOf(confirmation.get("jkt")));
  }

  private Outcome allowed(JWTClaimsSet token) {
    if (!audience.isEmpty() && token.getAudience().stream().noneMatch(audience::contains)) {
      return Outcome.refused(
          BearerTokenError.INVALID_TOKEN,
          "its audience is " + token.getAudience() + ", not " + String.join(" or ", audience));
    }
    for (Map.Entry<String, String> claim : claims.entrySet()) {
      String actual = String.valueOf(token.getClaim(claim.getKey()));
      if (!actual.equals(claim.getValue())) {
        return Outcome.refused(
            BearerTokenError.INVALID_TOKEN,
            String.format("its %s is %s, not %s", claim.getKey(), actual, claim.getValue()));
      }
    }
    Set<String> missing = new LinkedHashSet<>(scopes);
    Object scope = token.getClaim("scope");
    missing.removeAll(Arrays.asList(String.valueOf(scope).split(" ")));
    if (!missing.isEmpty()) {
      return Outcome.refused(
          BearerTokenError.INSUFFICIENT_SCOPE,
          String.format(
              "it has %s, without %s",
              scope == null ? "no scope" : "the scope " + scope, String.join(" ", missing)));
    }
    return new Outcome(Optional.of(token), Optional.empty(), Optional.empty());
  }

  /** Returns the requirement in words. */
  public String description() {
    StringBuilder text = new StringBuilder("a valid token of " + provider.issuer());
    if (!scopes.isEmpty()) {
      text.append(" with scope ").append(String.join(" ", scopes));
    }
    if (!audience.isEmpty()) {
      text.append(" for ").append(String.join(" or ", audience));
    }
    claims.forEach((name, value) -> text.append(", ").append(name).append(' ').append(value));
    return text.toString();
  }
}
