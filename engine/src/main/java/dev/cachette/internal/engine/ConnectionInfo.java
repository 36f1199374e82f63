// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import java.security.cert.X509Certificate;
import java.util.Optional;

/**
 * The connection of a request.
 *
 * @param protocol the HTTP version: {@code HTTP/1.1}, {@code HTTP/2}
 * @param connection the number of the connection, from 1
 * @param maker who sent the request
 * @param clientCertificate the certificate that the client sent, if it was asked
 */
public record ConnectionInfo(
    String protocol, int connection, Maker maker, Optional<X509Certificate> clientCertificate) {

  /** An unspecified connection. */
  public static final ConnectionInfo ANY = new ConnectionInfo("HTTP/1.1", 1);

  /** Creates a connection of an unknown client. */
  public ConnectionInfo(String protocol, int connection) {
    this(protocol, connection, Maker.UNKNOWN, Optional.empty());
  }
}
