// SPDX-License-Identifier: Apache-2.0
package dev.cachette.identity.option;

/**
 * The rules that identity providers enforce, and that a lenient stub would let pass. A client that
 * breaks one gets the error that a provider would send, and its test fails; see {@link
 * dev.cachette.identity.IdentityProvider#allow}.
 */
public enum IdentityRule {
  /**
   * A code is redeemed with the verifier of its challenge, and clients without credentials send a
   * challenge (RFC 7636, RFC 9700 section 2.1.1).
   */
  PKCE,
  /**
   * The redirect URI is a registered one, and the same in the authorization request and with the
   * code (RFC 6749 sections 3.1.2.3 and 4.1.3).
   */
  REDIRECT_URI,
  /** A code is redeemed once, by the client that it was issued to (RFC 6749 section 4.1.2). */
  CODE_ONCE,
  /** An authorization request has a state, against forged responses (RFC 6749 section 10.12). */
  STATE,
  /** A client authenticates in the way that it is registered with (RFC 6749 section 2.3). */
  CLIENT_AUTHENTICATION,
  /** Tokens and secrets are not in a URL, where logs have them (RFC 9700 section 4.3.2). */
  NOTHING_SECRET_IN_URLS,
  /** A rotated refresh token is used once (RFC 9700 section 4.14.2). */
  REFRESH_TOKEN_ONCE
}
