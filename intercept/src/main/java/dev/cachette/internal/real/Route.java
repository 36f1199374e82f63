// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.real;

import dev.cachette.http.Uri;
import dev.cachette.internal.agent.InterceptionBypass;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.Proxy;
import java.net.ProxySelector;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * The route to a real service.
 *
 * @param target its origin, which may be a replacement
 * @param named its origin with the host name in TLS and in the Host header
 * @param proxy the proxy; empty for a direct connection
 */
record Route(Uri target, Uri named, Optional<ProxyOnTheWay> proxy) {

  /** Returns the route to a destination, from the replacements and the JVM's proxy settings. */
  static Route to(Uri wanted, Map<String, RealAddress> addresses) throws IOException {
    Optional<RealAddress> other = Optional.ofNullable(addresses.get(wanted.origin()));
    Uri target = other.map(RealAddress::origin).orElse(wanted);
    Uri named = other.map(it -> named(target, it.hostName())).orElse(wanted);
    List<Proxy> proxies =
        InterceptionBypass.through(
            () ->
                ProxySelector.getDefault() == null
                    ? List.of()
                    : ProxySelector.getDefault().select(target.toJavaUri()));
    Optional<ProxyOnTheWay> proxy =
        proxies.stream()
            .findFirst()
            .filter(first -> first.type() != Proxy.Type.DIRECT)
            .map(first -> ProxyOnTheWay.of(first, target));
    return new Route(target, named, proxy);
  }

  /** With another host name, the port is the default one: it is behind a name, or a proxy. */
  private static Uri named(Uri target, String name) {
    int port = name.equals(target.host()) ? target.port() : Uri.defaultPort(target.scheme());
    return new Uri(target.scheme(), name, port, target.path(), Optional.empty());
  }

  /** Returns a name that is the same for calls that can share a connection. */
  String name() {
    return target.origin() + " as " + named.origin();
  }

  boolean isSecure() {
    return target.scheme().equals("https");
  }

  /** Returns the proxy, if it forwards requests instead of a tunnel. */
  Optional<ProxyOnTheWay> proxyOfEachCall() {
    return proxy.filter(it -> !it.tunnels(target));
  }

  /** Returns the proxy, if it makes a tunnel. */
  Optional<ProxyOnTheWay> tunnel() {
    return proxy.filter(it -> it.tunnels(target));
  }

  /** Returns the address to connect to; resolved without hooks, or unresolved for a tunnel. */
  InetSocketAddress address() throws IOException {
    if (tunnel().isPresent()) {
      return InetSocketAddress.createUnresolved(target.host(), target.port());
    }
    if (proxy.isPresent()) {
      return proxy.get().address();
    }
    return new InetSocketAddress(
        InterceptionBypass.through(() -> InetAddress.getByName(target.host())), target.port());
  }
}
