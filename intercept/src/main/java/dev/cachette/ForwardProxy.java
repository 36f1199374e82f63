// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import java.net.InetSocketAddress;
import java.net.URI;

/**
 * An HTTP proxy on the loopback address, for programs outside this JVM: another process, another
 * language, a browser. It accepts requests in absolute form, and CONNECT (RFC 9110 section 9.3.6)
 * with certificates created on demand.
 *
 * @param address its address
 * @param authorityPem the certificate of its certificate authority, as PEM (RFC 7468); a program
 *     must trust it to call over HTTPS. It differs in every session
 */
public record ForwardProxy(InetSocketAddress address, String authorityPem) {

  /** Returns its host: {@code 127.0.0.1}. */
  public String host() {
    return address.getAddress().getHostAddress();
  }

  /** Returns its port. */
  public int port() {
    return address.getPort();
  }

  /**
   * Returns its URI, as for the environment variables {@code http_proxy} and {@code https_proxy}.
   */
  public URI uri() {
    return URI.create("http://" + host() + ":" + port());
  }
}
