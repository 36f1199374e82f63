// SPDX-License-Identifier: Apache-2.0
package dev.cachette.identity.option;

/** Failures and wrong tokens of an identity provider, which a test can plan. */
public enum IdentityFault {
  /** The user, or a policy, denies the authorization request: {@code access_denied}. */
  ACCESS_DENIED("access_denied"),
  /** Nobody is signed in, and the request does not allow a page: {@code login_required}. */
  LOGIN_REQUIRED("login_required"),
  /** The user must agree on a page first: {@code consent_required}. */
  CONSENT_REQUIRED("consent_required"),
  /** The code, refresh token or assertion is refused: {@code invalid_grant}. */
  INVALID_GRANT("invalid_grant"),
  /** The client is refused: {@code invalid_client}, with status 401. */
  INVALID_CLIENT("invalid_client"),
  /** A device has to wait for its user: {@code authorization_pending} (RFC 8628). */
  AUTHORIZATION_PENDING("authorization_pending"),
  /** A device asks too often: {@code slow_down} (RFC 8628). */
  SLOW_DOWN("slow_down"),
  /** Tokens are signed by a key that is not among the published ones. */
  UNKNOWN_KEY(""),
  /** The signature of tokens is wrong, though the key is known. */
  WRONG_SIGNATURE(""),
  /** Tokens have another issuer. */
  WRONG_ISSUER(""),
  /** Tokens are for another audience. */
  WRONG_AUDIENCE(""),
  /** The ID token has another nonce than the authorization request. */
  WRONG_NONCE(""),
  /** Tokens have expired an hour ago. */
  EXPIRED(""),
  /** Tokens become valid in an hour. */
  NOT_YET_VALID(""),
  /** Tokens have no signature: {@code alg: none}. */
  UNSIGNED(""),
  /** Each endpoint answers with status 503, and with {@code temporarily_unavailable}. */
  UNAVAILABLE("temporarily_unavailable");

  private final String code;

  IdentityFault(String code) {
    this.code = code;
  }

  /** Returns the error code that the client gets; empty if it gets a wrong token. */
  public String code() {
    return code;
  }
}
