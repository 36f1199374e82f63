// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import java.util.Optional;
import java.util.stream.Stream;

/** Where the endpoints are, below the issuer. */
enum EndpointPath {
  AUTHORIZATION("/authorize"),
  PUSHED("/par"),
  TOKEN("/token"),
  USER_INFO("/userinfo"),
  KEYS("/jwks"),
  INTROSPECTION("/introspect"),
  REVOCATION("/revoke"),
  LOGOUT("/logout"),
  DEVICE_AUTHORIZATION("/device_authorization"),
  DEVICE("/device"),
  OPENID_CONFIGURATION("/.well-known/openid-configuration"),
  SERVER_METADATA("/.well-known/oauth-authorization-server");

  private final String path;

  EndpointPath(String path) {
    this.path = path;
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
