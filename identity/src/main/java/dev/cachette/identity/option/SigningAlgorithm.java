// SPDX-License-Identifier: Apache-2.0
package dev.cachette.identity.option;

/** The algorithms of signatures (RFC 7518 section 3.1, RFC 8037). */
public enum SigningAlgorithm {
  /** RSA with SHA-256, which every client of OpenID Connect supports. */
  RS256("RS256"),
  /** ECDSA with P-256 and SHA-256. */
  ES256("ES256"),
  /** Edwards curve Ed25519. */
  EDDSA("EdDSA");

  private final String registered;

  SigningAlgorithm(String registered) {
    this.registered = registered;
  }

  /** Returns the registered name, as in the header of a token. */
  @Override
  public String toString() {
    return registered;
  }
}
