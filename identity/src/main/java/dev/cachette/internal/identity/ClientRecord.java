// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import com.nimbusds.jose.jwk.JWKSet;
import dev.cachette.internal.misuse.Refusals;
import java.net.URI;
import java.security.cert.X509Certificate;
import java.text.ParseException;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;

/**
 * The declaration of a client. Immutable.
 *
 * @param id its identifier
 * @param secret its secret; empty if it has none
 * @param keys its public keys; empty if it has none
 * @param certificate its certificate; empty if it has none
 * @param redirectUris its redirect URIs; empty if any is right
 * @param scopes its scopes; empty if any is right
 * @param audience the audience of its access tokens; empty for its identifier
 * @param backChannelLogout where logout tokens are sent
 */
public record ClientRecord(
    String id,
    Optional<String> secret,
    Optional<JWKSet> keys,
    Optional<X509Certificate> certificate,
    List<URI> redirectUris,
    Set<String> scopes,
    List<String> audience,
    Optional<URI> backChannelLogout) {

  /** Copies the collections. */
  public ClientRecord {
    redirectUris = List.copyOf(redirectUris);
    scopes = Set.copyOf(scopes);
    audience = List.copyOf(audience);
  }

  /** Returns a client of which nothing else is declared. */
  public static ClientRecord of(String id) {
    return new ClientRecord(
        id,
        Optional.empty(),
        Optional.empty(),
        Optional.empty(),
        List.of(),
        Set.of(),
        List.of(),
        Optional.empty());
  }

  /** Sets the secret. */
  public ClientRecord withSecret(String value) {
    return new ClientRecord(
        id,
        Optional.of(value),
        keys,
        certificate,
        redirectUris,
        scopes,
        audience,
        backChannelLogout);
  }

  /**
   * Returns a URI to which a provider sends users or notices.
   *
   * @throws IllegalArgumentException if it is not absolute, or has a fragment
   */
  public static URI uri(String text) {
    try {
      URI uri = URI.create(text);
      if (uri.isAbsolute() && uri.getRawFragment() == null) {
        return uri;
      }
    } catch (IllegalArgumentException malformed) {
      // Reported below.
    }
    throw Refusals.argument("expected an absolute URI without a fragment, found \"" + text + "\".");
  }

  /**
   * Sets the public keys.
   *
   * @param jwks a JSON Web Key Set
   * @throws IllegalArgumentException if it is not one
   */
  public ClientRecord withPublicKeys(String jwks) {
    JWKSet value;
    try {
      value = JWKSet.parse(jwks).toPublicJWKSet();
    } catch (ParseException malformed) {
      throw Refusals.argument(
          "public keys are a JSON Web Key Set, {\"keys\": [...]}: " + malformed.getMessage(),
          malformed);
    }
    return new ClientRecord(
        id,
        secret,
        Optional.of(value),
        certificate,
        redirectUris,
        scopes,
        audience,
        backChannelLogout);
  }

  /** Sets the certificate. */
  public ClientRecord withCertificate(X509Certificate value) {
    return new ClientRecord(
        id, secret, keys, Optional.of(value), redirectUris, scopes, audience, backChannelLogout);
  }

  /** Adds redirect URIs. */
  public ClientRecord withRedirectUris(List<URI> more) {
    return new ClientRecord(
        id,
        secret,
        keys,
        certificate,
        Stream.concat(redirectUris.stream(), more.stream()).toList(),
        scopes,
        audience,
        backChannelLogout);
  }

  /** Sets the scopes. */
  public ClientRecord withScopes(Set<String> allowed) {
    return new ClientRecord(
        id, secret, keys, certificate, redirectUris, allowed, audience, backChannelLogout);
  }

  /** Sets the audience of its access tokens. */
  public ClientRecord withAudience(List<String> all) {
    return new ClientRecord(
        id, secret, keys, certificate, redirectUris, scopes, all, backChannelLogout);
  }

  /** Sets where logout tokens are sent. */
  public ClientRecord withBackChannelLogout(URI uri) {
    return new ClientRecord(
        id, secret, keys, certificate, redirectUris, scopes, audience, Optional.of(uri));
  }

  /** Returns true if it has nothing to authenticate with. */
  boolean isPublic() {
    return secret.isEmpty() && keys.isEmpty() && certificate.isEmpty();
  }

  /** Returns how it authenticates, for messages. */
  String authentication() {
    if (isPublic()) {
      return "none: it has no credentials";
    }
    return String.join(
        " or ",
        Stream.of(
                secret.map(it -> "client_secret_basic or client_secret_post"),
                keys.map(it -> "private_key_jwt"),
                certificate.map(it -> "self_signed_tls_client_auth"))
            .flatMap(Optional::stream)
            .toList());
  }
}
