// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import dev.cachette.internal.misuse.Refusals;
import java.time.Duration;

/**
 * How long what a provider issues is valid.
 *
 * @param code of an authorization code
 * @param accessToken of an access token
 * @param idToken of an ID token
 * @param refreshToken of a refresh token
 */
public record Lifetimes(
    Duration code, Duration accessToken, Duration idToken, Duration refreshToken) {

  /** As most providers have them. */
  public static final Lifetimes USUAL =
      new Lifetimes(
          Duration.ofMinutes(1), Duration.ofMinutes(5), Duration.ofMinutes(5), Duration.ofDays(1));

  /**
   * Returns a lifetime.
   *
   * @param what what is given, for the message
   * @throws IllegalArgumentException if it is shorter than a second, which tokens cannot express
   */
  public static Duration checked(String what, Duration lifetime) {
    if (Refusals.given(what, lifetime).compareTo(Duration.ofSeconds(1)) < 0) {
      throw Refusals.argument(what + " needs at least a second, not " + lifetime + ".");
    }
    return lifetime;
  }

  /** Sets the first. */
  public Lifetimes withCode(Duration lifetime) {
    return new Lifetimes(lifetime, accessToken, idToken, refreshToken);
  }

  /** Sets the second. */
  public Lifetimes withAccessToken(Duration lifetime) {
    return new Lifetimes(code, lifetime, idToken, refreshToken);
  }

  /** Sets the third. */
  public Lifetimes withIdToken(Duration lifetime) {
    return new Lifetimes(code, accessToken, lifetime, refreshToken);
  }

  /** Sets the fourth. */
  public Lifetimes withRefreshToken(Duration lifetime) {
    return new Lifetimes(code, accessToken, idToken, lifetime);
  }
}
