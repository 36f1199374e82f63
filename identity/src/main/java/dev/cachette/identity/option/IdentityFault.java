// SPDX-License-Identifier: Apache-2.0
package dev.cachette.identity.option;

/** What an identity provider can do instead of what its client hopes for. */
public enum IdentityFault {
  /** The user, or a policy, denies the authorization request: {@code access_denied}. */
  ACCESS_DENIED("access_denied", Stage.AUTHORIZATION),
  /** Nobody is signed in, and the request does not allow a page: {@code login_required}. */
  LOGIN_REQUIRED("login_required", Stage.AUTHORIZATION),
  /** The user must agree on a page first: {@code consent_required}. */
  CONSENT_REQUIRED("consent_required", Stage.AUTHORIZATION),
  /** The code, refresh token or assertion is refused: {@code invalid_grant}. */
  INVALID_GRANT("invalid_grant", Stage.GRANT),
  /** The client is refused: {@code invalid_client}, with status 401. */
  INVALID_CLIENT("invalid_client", Stage.GRANT),
  /** A device has to wait for its user: {@code authorization_pending} (RFC 8628). */
  AUTHORIZATION_PENDING("authorization_pending", Stage.DEVICE),
  /** A device asks too often: {@code slow_down} (RFC 8628). */
  SLOW_DOWN("slow_down", Stage.DEVICE),
  /** Tokens are signed by a key that is not among the published ones. */
  UNKNOWN_KEY("", Stage.TOKEN),
  /** The signature of tokens is wrong, though the key is known. */
  WRONG_SIGNATURE("", Stage.TOKEN),
  /** Tokens have another issuer. */
  WRONG_ISSUER("", Stage.TOKEN),
  /** Tokens are for another audience. */
  WRONG_AUDIENCE("", Stage.TOKEN),
  /** The ID token has another nonce than the authorization request. */
  WRONG_NONCE("", Stage.TOKEN),
  /** Tokens have expired an hour ago. */
  EXPIRED("", Stage.TOKEN),
  /** Tokens become valid in an hour. */
  NOT_YET_VALID("", Stage.TOKEN),
  /** Tokens have no signature: {@code alg: none}. */
  UNSIGNED("", Stage.TOKEN),
  /** Each endpoint answers with status 503, and with {@code temporarily_unavailable}. */
  UNAVAILABLE("temporarily_unavailable", Stage.ANY);

  /** Where it happens. */
  enum Stage {
    AUTHORIZATION,
    GRANT,
    DEVICE,
    TOKEN,
    ANY
  }

  private final String code;
  private final Stage stage;

  IdentityFault(String code, Stage stage) {
    this.code = code;
    this.stage = stage;
  }

  /** Returns the error code that the client gets; empty if it gets a wrong token. */
  public String code() {
    return code;
  }

  /** Returns true if it is in the tokens that are issued. */
  public boolean isInTokens() {
    return stage == Stage.TOKEN;
  }

  /** Returns true if it is the answer to an authorization request. */
  public boolean isOfAuthorization() {
    return stage == Stage.AUTHORIZATION;
  }

  /** Returns true if it is the answer of the token endpoint. */
  public boolean isOfGrants() {
    return stage == Stage.GRANT;
  }

  /** Returns true if it is the answer of the token endpoint to a device. */
  public boolean isOfDevices() {
    return stage == Stage.DEVICE;
  }
}
