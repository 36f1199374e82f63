// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import java.time.Instant;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * The right of a client to act, for itself or for a user. Immutable.
 *
 * @param client the identifier of the client
 * @param user the name of the user; empty if the client acts for itself
 * @param scopes the granted scopes, in order
 * @param audience who accepts the access token
 * @param nonce the nonce of the authorization request
 * @param signedIn when the user has signed in
 * @param session the session of the user at the provider
 * @param thumbprint of the client's key, to which tokens are bound (RFC 9449)
 * @param actor who acts for the user, after a token exchange (RFC 8693)
 */
record Grant(
    String client,
    Optional<String> user,
    Set<String> scopes,
    List<String> audience,
    Optional<String> nonce,
    Instant signedIn,
    String session,
    Optional<String> thumbprint,
    Optional<String> actor) {

  /** Copies the collections. */
  Grant {
    scopes = new LinkedHashSet<>(scopes);
    audience = List.copyOf(audience);
  }

  /** Returns the grant of a session that begins now, to a client for itself or for a user. */
  static Grant of(
      ClientRecord client,
      Optional<String> user,
      Set<String> scopes,
      List<String> audience,
      Instant now) {
    return new Grant(
        client.id(),
        user,
        scopes,
        audience,
        Optional.empty(),
        now,
        StoredGrants.random(),
        Optional.empty(),
        Optional.empty());
  }

  /** Returns the scopes as one text. */
  String scope() {
    return String.join(" ", scopes);
  }

  /** Returns it with fewer scopes. */
  Grant narrowed(Set<String> fewer) {
    return new Grant(client, user, fewer, audience, nonce, signedIn, session, thumbprint, actor);
  }

  /** Returns it for a user who has signed in. */
  Grant afterSignIn(Optional<String> itsNonce, Instant at) {
    return new Grant(client, user, scopes, audience, itsNonce, at, session, thumbprint, actor);
  }

  /** Returns it bound to a key. */
  Grant boundTo(Optional<String> key) {
    return new Grant(client, user, scopes, audience, nonce, signedIn, session, key, actor);
  }

  /** Returns it for somebody who acts for the user. */
  Grant actedBy(String other) {
    return new Grant(
        client, user, scopes, audience, nonce, signedIn, session, thumbprint, Optional.of(other));
  }
}
