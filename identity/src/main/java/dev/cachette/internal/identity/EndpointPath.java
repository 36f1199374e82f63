// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import java.util.Optional;
import java.util.stream.Stream;

/** Where the endpoints are, below the issuer. */
enum EndpointPath {
  AUTHORIZATION("/authorize", "authorization endpoint"),
  PUSHED("/par", "pushed authorization request endpoint"),
  TOKEN("/token", "token endpoint"),
  USER_INFO("/userinfo", "user info endpoint"),
  KEYS("/jwks", "published keys"),
  INTROSPECTION("/introspect", "introspection endpoint"),
  REVOCATION("/revoke", "revocation endpoint"),
  LOGOUT("/logout", "logout endpoint"),
  DEVICE_AUTHORIZATION("/device_authorization", "device authorization endpoint"),
  DEVICE("/device", "page for devices"),
  OPENID_CONFIGURATION("/.well-known/openid-configuration", "metadata"),
  SERVER_METADATA("/.well-known/oauth-authorization-server", "metadata");

  private final String path;
  private final String text;

  EndpointPath(String path, String text) {
    this.path = path;
    this.text = text;
  }

  /** Returns what it is, in words. */
  String text() {
    return text;
  }

  /** Returns true for what clients verify the provider by: its metadata and its keys. */
  boolean isMetadata() {
    return this == KEYS || this == OPENID_CONFIGURATION || this == SERVER_METADATA;
  }

  /** Returns the URL of the endpoint. */
  String url(String issuer) {
    return issuer + path;
  }

  /**
   * Returns the endpoint at a path.
   *
   * @param base the path of the issuer, without a slash at its end
   */
  static Optional<EndpointPath> at(String path, String base) {
    // RFC 8414 section 3 has the path of the issuer behind the well-known one.
    if (!base.isEmpty() && path.equals(SERVER_METADATA.path + base)) {
      return Optional.of(SERVER_METADATA);
    }
    return Stream.of(values()).filter(it -> path.equals(base + it.path)).findFirst();
  }
}
