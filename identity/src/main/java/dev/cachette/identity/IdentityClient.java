// SPDX-License-Identifier: Apache-2.0
package dev.cachette.identity;

import dev.cachette.internal.identity.ClientRecord;
import dev.cachette.internal.identity.Clients;
import dev.cachette.internal.misuse.Refusals;
import java.net.URI;
import java.security.cert.X509Certificate;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;

/**
 * A client of an identity provider, declared by {@link IdentityProvider#client}. What is not
 * declared may be anything: redirect URIs, scopes. Without credentials it is a public client, which
 * must use PKCE. Thread-safe.
 */
public final class IdentityClient {

  private final String id;
  private final Clients clients;

  IdentityClient(String id, Clients clients) {
    this.id = id;
    this.clients = clients;
    clients.declare(id);
  }

  /** Sets the secret, which it sends as {@code client_secret_basic} or {@code _post}. */
  public IdentityClient secret(String secret) {
    Refusals.given("secret(secret)", secret);
    clients.change(id, it -> it.withSecret(secret));
    return this;
  }

  /**
   * Sets the public keys with which it authenticates, as {@code private_key_jwt} (RFC 7523).
   *
   * @param jwks a JSON Web Key Set (RFC 7517 section 5)
   * @throws IllegalArgumentException if it is not one
   */
  public IdentityClient publicKeys(String jwks) {
    Refusals.given("publicKeys(jwks)", jwks);
    clients.change(id, it -> it.withPublicKeys(jwks));
    return this;
  }

  /**
   * Sets the certificate that it presents on its connection, as {@code self_signed_tls_client_auth}
   * (RFC 8705). The session must ask for certificates, see {@link
   * dev.cachette.Settings#requestClientCertificates}.
   */
  public IdentityClient certificate(X509Certificate certificate) {
    Refusals.given("certificate(certificate)", certificate);
    clients.change(id, it -> it.withCertificate(certificate));
    return this;
  }

  /** Registers redirect URIs; an authorization request must have one of them, exactly. */
  public IdentityClient redirectUris(String... uris) {
    List<URI> more =
        Stream.of(Refusals.given("redirectUris(uris)", uris))
            .map(it -> ClientRecord.uri(Refusals.given("redirectUris(uris)", it)))
            .toList();
    clients.change(id, it -> it.withRedirectUris(more));
    return this;
  }

  /** Limits the scopes that it gets; a request for others is {@code invalid_scope}. */
  public IdentityClient scopes(String... scopes) {
    Set<String> allowed = Set.of(Refusals.given("scopes(scopes)", scopes));
    clients.change(id, it -> it.withScopes(allowed));
    return this;
  }

  /** Sets the audience of its access tokens; its own identifier by default. */
  public IdentityClient audience(String... audience) {
    List<String> all = List.of(Refusals.given("audience(audience)", audience));
    clients.change(id, it -> it.withAudience(all));
    return this;
  }

  /** Sets where logout tokens are sent (OpenID Connect Back-Channel Logout). */
  public IdentityClient backChannelLogout(String uri) {
    URI at = ClientRecord.uri(Refusals.given("backChannelLogout(uri)", uri));
    clients.change(id, it -> it.withBackChannelLogout(at));
    return this;
  }

  @Override
  public String toString() {
    return id;
  }
}
