// SPDX-License-Identifier: Apache-2.0
package dev.cachette.identity;

import dev.cachette.http.Response;
import dev.cachette.internal.identity.TokenChallenge;
import dev.cachette.internal.identity.TokenCheck;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.match.Authorization;
import dev.cachette.match.Received;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.time.Clock;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * The access tokens that a stub accepts: {@code net.stub("POST
 * https://berths.example/v1/bookings").bearer(id.token().withScope("berths:write"))}.
 *
 * <p>A request without such a token gets 401 with {@code WWW-Authenticate}, or 403 if only its
 * scope is insufficient (RFC 6750 section 3.1); it is not a call of the stub. A token that is bound
 * to a key needs a proof (RFC 9449). Immutable.
 */
public final class AcceptedToken implements Authorization {

  private final TokenCheck check;
  private final Clock clock;

  AcceptedToken(TokenCheck check, Clock clock) {
    this.check = check;
    this.clock = clock;
  }

  /** Requires these scopes, too. */
  public AcceptedToken withScope(String... scopes) {
    Set<String> all = new LinkedHashSet<>(check.scopes());
    all.addAll(List.of(Refusals.given("withScope(scopes)", scopes)));
    return with(new TokenCheck(check.provider(), all, check.audience(), check.claims()));
  }

  /** Requires one of these audiences. */
  public AcceptedToken withAudience(String... audience) {
    Set<String> any = Set.of(Refusals.given("withAudience(audience)", audience));
    return with(new TokenCheck(check.provider(), check.scopes(), any, check.claims()));
  }

  /** Requires a claim to have a value, as text: {@code withClaim("sub", "mara")}. */
  public AcceptedToken withClaim(String claim, Object value) {
    Map<String, String> all = new LinkedHashMap<>(check.claims());
    all.put(
        Refusals.given("withClaim(claim, value)", claim),
        Refusals.given("withClaim(claim, value)", value).toString());
    return with(new TokenCheck(check.provider(), check.scopes(), check.audience(), all));
  }

  private AcceptedToken with(TokenCheck other) {
    return new AcceptedToken(other, clock);
  }

  @Override
  public String description() {
    return "bearer " + check.description();
  }

  @Override
  public Check check(Received received) {
    return check
        .of(received.request(), clock.instant())
        .problem()
        .map(it -> Check.missed("token", 0.5, Difference.of(check.description(), it)))
        .orElseGet(() -> Check.held("token", check.description()));
  }

  @Override
  public Response challenge(Received received) {
    return TokenChallenge.of(check, check.of(received.request(), clock.instant())).response();
  }

  @Override
  public String toString() {
    return description();
  }
}
