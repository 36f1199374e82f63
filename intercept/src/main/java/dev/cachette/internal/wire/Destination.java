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
 */
record Destination(String host, int port) {

  Destination {
    host = Hosts.canonical(host);
  }

  /**
   * The URI that a request on this connection means.
   *
   * <p>The connection is right whatever the Host header says, with one exception: where a client
   * has resolved a name by itself and connects to a bare address, only the header has the name.
   *
   * @param target the request target, in origin form or absolute form (RFC 9112 section 3.2)
   */
  Uri uriOf(String scheme, String target, Optional<String> hostHeader) {
    int authority = target.indexOf("://");
    if (authority > 0 && !target.startsWith("/")) {
      return absolute(target, authority);
    }
    String named =
        hostHeader.map(Destination::hostIn).filter(name -> !Hosts.isAddress(name)).orElse(host);
    return Uri.at(scheme, Hosts.isAddress(host) ? named : host, port, target);
  }

  private Uri absolute(String target, int authority) {
    String scheme = target.substring(0, authority).toLowerCase(Locale.ROOT);
    int path = indexOfPath(target, authority + 3);
    String hostAndPort = target.substring(authority + 3, path);
    String name = hostIn(hostAndPort);
    String rest = hostAndPort.substring(hostAndPort.lastIndexOf(']') + 1);
    int colon = rest.indexOf(':');
    boolean given = colon >= 0 && rest.substring(colon + 1).matches("[0-9]{1,5}");
    int number = given ? Integer.parseInt(rest.substring(colon + 1)) : Uri.defaultPort(scheme);
    return Uri.at(scheme, name, number, target.substring(path));
  }

  private static int indexOfPath(String target, int from) {
    for (int at = from; at < target.length(); at++) {
      if (target.charAt(at) == '/' || target.charAt(at) == '?') {
        return at;
      }
    }
    return target.length();
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
