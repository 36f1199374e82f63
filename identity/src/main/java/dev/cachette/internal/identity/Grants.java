// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import com.nimbusds.oauth2.sdk.OAuth2Error;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;

/** The rules for scopes and audiences that all kinds of grants share. */
final class Grants {

  /** The types of grants, as in the metadata. */
  static final List<String> SUPPORTED =
      List.of(
          "authorization_code",
          "refresh_token",
          "client_credentials",
          "urn:ietf:params:oauth:grant-type:device_code",
          "urn:ietf:params:oauth:grant-type:token-exchange",
          "urn:ietf:params:oauth:grant-type:jwt-bearer");

  private Grants() {}

  /** Checks that a client may have scopes. */
  static void requireScopes(ClientRecord client, Set<String> scopes) throws OAuthRefusal {
    Set<String> foreign = new LinkedHashSet<>(scopes);
    foreign.removeAll(client.scopes());
    if (!client.scopes().isEmpty() && !foreign.isEmpty()) {
      throw new OAuthRefusal(
          OAuth2Error.INVALID_SCOPE, "the client has no scope " + String.join(" ", foreign));
    }
  }

  /** Returns the audience of access tokens: what was asked for (RFC 8707), or is declared. */
  static List<String> audience(IdentityCall call, ClientRecord client) {
    List<String> wanted =
        Stream.of("resource", "audience")
            .flatMap(name -> call.parameters().getOrDefault(name, List.of()).stream())
            .filter(it -> !it.isEmpty())
            .toList();
    if (!wanted.isEmpty()) {
      return wanted;
    }
    return client.audience().isEmpty() ? List.of(client.id()) : client.audience();
  }

  /** Returns the grant to a client for itself, or for a user. */
  static Grant of(IdentityCall call, ClientRecord client, Optional<String> user)
      throws OAuthRefusal {
    requireScopes(client, call.scopes());
    return Grant.of(client, user, call.scopes(), audience(call, client), call.now());
  }
}
