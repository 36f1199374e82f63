package dev.cachette.internal.wire;

import dev.cachette.http.Uri;
import dev.cachette.internal.uri.Hosts;
import java.util.Locale;
import java.util.Optional;

/**
 * Where the caller of a connection wanted to go.
 *
 * @param host a host name, or an address
 * @param port the port
 * @param scheme the scheme that its calls are taken for, whatever they come by
 * @param isShared whether the caller connected to us, so that only its Host header tells
 */
record Destination(String host, int port, Optional<String> scheme, boolean isShared) {

  private static final int LARGEST_PORT = 65_535;

  Destination {
    host = Hosts.canonical(host);
  }

  /** A host and port that somebody connects to. */
  static Destination of(String host, int port) {
    return new Destination(host, port, Optional.empty(), false);
  }

  /** An origin that a port of ours stands for. */
  static Destination standingFor(String scheme, String host, int port) {
    return new Destination(host, port, Optional.of(scheme), false);
  }

  /** A port of ours that stands for itself, and for whatever host is named there. */
  static Destination shared(String host, int port) {
    return new Destination(host, port, Optional.empty(), true);
  }

  /**
   * What a CONNECT asks for (RFC 9110 section 9.3.6): a host and a port.
   *
   * @throws IllegalArgumentException if it is no such pair
   */
  static Destination ofConnect(String target) {
    int colon = target.lastIndexOf(':');
    String port = target.substring(colon + 1);
    if (colon < 1 || !port.matches("[0-9]{1,5}") || Integer.parseInt(port) > LARGEST_PORT) {
      throw new IllegalArgumentException("CONNECT takes a host and a port, not " + target);
    }
    return of(hostIn(target), Integer.parseInt(port));
  }

  /** Whether it is a port that we gave out, not one that somebody wanted to connect to. */
  boolean isOurs() {
    return isShared || scheme.isPresent();
  }

  /**
   * The URI that a request on this connection means.
   *
   * <p>The connection is right whatever the Host header says, with two exceptions: where a client
   * has resolved a name by itself and connects to a bare address, only the header has the name; and
   * where the client connects to a port of ours.
   *
   * @param secure whether it came by TLS
   * @param target the request target, in origin form or absolute form (RFC 9112 section 3.2)
   */
  Uri uriOf(boolean secure, String target, Optional<String> hostHeader) {
    int authority = target.indexOf("://");
    if (authority > 0 && !target.startsWith("/")) {
      return absolute(target, authority);
    }
    String used = scheme.orElse(secure ? "https" : "http");
    if (!Hosts.isAddress(host)) {
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
    return isShared && header.startsWith("localhost");
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
