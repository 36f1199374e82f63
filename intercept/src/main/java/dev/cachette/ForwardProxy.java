package dev.cachette;

import java.net.InetSocketAddress;
import java.net.URI;

/**
 * A proxy on the loopback by which a program of any kind can be made to call the stubs: another
 * process, another language, a browser. It takes requests in absolute form, and CONNECT (RFC 9110
 * section 9.3.6) with certificates made on demand.
 *
 * @param address where it listens
 * @param authorityPem the certificate of the authority that its certificates are by, as PEM (RFC
 *     7468); the program has to trust it to call by HTTPS. It is another one in every session
 */
public record ForwardProxy(InetSocketAddress address, String authorityPem) {

  /** Its host: {@code 127.0.0.1}. */
  public String host() {
    return address.getAddress().getHostAddress();
  }

  /** Its port. */
  public int port() {
    return address.getPort();
  }

  /** As the environment variables {@code http_proxy} and {@code https_proxy} want it. */
  public URI uri() {
    return URI.create("http://" + host() + ":" + port());
  }
}
