// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import dev.cachette.http.Uri;
import dev.cachette.internal.uri.Hosts;
import java.util.Locale;
import java.util.Optional;

/**
 * The intended destination of a connection.
 *
 * @param host a host name, or an address
 * @param port the port
 * @param scheme the scheme of its calls, even if they arrive over another
 * @param isShared whether the caller connected to Cachette itself, so that only its Host header
 *     tells
 * @param prefersHttp1 whether HTTP/1.1 is negotiated with clients that offer it
 * @param readsWhenIdle whether its clients notice at once that a connection is closed
 */
record Destination(
    String host,
    int port,
    Optional<String> scheme,
    boolean isShared,
    boolean prefersHttp1,
    boolean readsWhenIdle) {

  private static final int LARGEST_PORT = 65_535;

  Destination {
    host = Hosts.canonical(host);
  }

  /** Returns a host and port that a client connects to. */
  static Destination of(String host, int port) {
    return of(host, port, false, false);
  }

  /** Returns a host and port that a client connects to, with what is known of the client. */
  static Destination of(String host, int port, boolean prefersHttp1, boolean readsWhenIdle) {
    return new Destination(host, port, Optional.empty(), false, prefersHttp1, readsWhenIdle);
  }

  /** Returns an origin that a port of Cachette's serves as. */
  static Destination servingAs(String scheme, String host, int port) {
    return new Destination(host, port, Optional.of(scheme), false, false, false);
  }

  /** Returns a port of Cachette's, for itself and for any host in a Host header. */
  static Destination shared(String host, int port) {
    return new Destination(host, port, Optional.empty(), true, false, false);
  }

  /**
   * Returns the target of a CONNECT (RFC 9110 section 9.3.6): a host and a port.
   *
   * @throws IllegalArgumentException if it is not such a pair
   */
  static Destination ofConnect(String target) {
    int colon = target.lastIndexOf(':');
    String port = target.substring(colon + 1);
    if (colon < 1 || !port.matches("[0-9]{1,5}") || Integer.parseInt(port) > LARGEST_PORT) {
      throw new IllegalArgumentException("CONNECT needs a host and a port, not " + target);
    }
    return of(hostIn(target), Integer.parseInt(port));
  }

  /** Returns true if it is a port that Cachette gave out, not a redirected destination. */
  boolean isOurs() {
    return isShared || scheme.isPresent();
  }

  /**
   * Returns the URI of a request on this connection.
   *
   * <p>The connection decides, whatever the Host header says, with two exceptions: if a client has
   * resolved a name itself and connects to an address, only the header has the name; and if the
   * client connects to a port of Cachette's that does not serve as one origin.
   *
   * @param secure whether it arrived over TLS
   * @param target the request target, in origin form or absolute form (RFC 9112 section 3.2)
   */
  Uri uriOf(boolean secure, String target, Optional<String> hostHeader) {
    int authority = target.indexOf("://");
    if (authority > 0 && !target.startsWith("/")) {
      return absolute(target, authority);
    }
    String used = scheme.orElse(secure ? "https" : "http");
    if (scheme.isPresent() || !Hosts.isAddress(host)) {
      return Uri.at(used, host, port, target);
    }
    Optional<String> named =
        hostHeader.filter(header -> !Hosts.isAddress(hostIn(header)) && !isOurself(header));
    if (named.isEmpty()) {
      return Uri.at(used, host, port, target);
    }
    int namedPort = isShared ? portIn(named.get(), Uri.defaultPort(used)) : port;
    return Uri.at(used, hostIn(named.get()), namedPort, target);
  }

  private boolean isOurself(String header) {
    return isShared && hostIn(header).equalsIgnoreCase("localhost");
  }

  private static Uri absolute(String target, int authority) {
    String scheme = target.substring(0, authority).toLowerCase(Locale.ROOT);
    int path = indexOfPath(target, authority + 3);
    String hostAndPort = target.substring(authority + 3, path);
    int number = portIn(hostAndPort, Uri.defaultPort(scheme));
    return Uri.at(scheme, hostIn(hostAndPort), number, target.substring(path));
  }

  private static int indexOfPath(String target, int from) {
    for (int at = from; at < target.length(); at++) {
      if (target.charAt(at) == '/' || target.charAt(at) == '?') {
        return at;
      }
    }
    return target.length();
  }

  private static int portIn(String hostAndPort, int otherwise) {
    String rest = hostAndPort.substring(hostAndPort.lastIndexOf(']') + 1);
    int colon = rest.indexOf(':');
    boolean given = colon >= 0 && rest.substring(colon + 1).matches("[0-9]{1,5}");
    return given ? Integer.parseInt(rest.substring(colon + 1)) : otherwise;
  }

  private static String hostIn(String hostAndPort) {
    if (hostAndPort.startsWith("[")) {
      return hostAndPort.substring(1, Math.max(1, hostAndPort.indexOf(']')));
    }
    int colon = hostAndPort.indexOf(':');
    return colon < 0 ? hostAndPort : hostAndPort.substring(0, colon);
  }

  @Override
  public String toString() {
    return host + ":" + port;
  }
}
