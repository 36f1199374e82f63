// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import java.util.Optional;

/** Signs recorded tokens again, for the issuers that are stood in for. */
@FunctionalInterface
public interface TokenSigner {

  /** Signs nothing. */
  TokenSigner NONE = (claims, nonce) -> Optional.empty();

  /**
   * Returns a token.
   *
   * @param claims the claims that it had, as JSON
   * @param nonce the nonce of the login; empty for none
   * @return empty if nobody stands in for its issuer
   */
  Optional<String> sign(String claims, Optional<String> nonce);
}
