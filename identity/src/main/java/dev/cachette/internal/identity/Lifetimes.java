// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

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
