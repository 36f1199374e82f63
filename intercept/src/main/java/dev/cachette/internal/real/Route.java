package dev.cachette.internal.real;

import dev.cachette.http.Uri;
import dev.cachette.internal.agent.Passage;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.Proxy;
import java.net.ProxySelector;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * The way to a real service.
 *
 * @param target its origin, which may be another than the caller meant
 * @param proxy the proxy on the way; empty if there is none
 */
record Route(Uri target, Optional<ProxyOnTheWay> proxy) {

  /**
   * The way to where a caller wanted to go: by the table of addresses, and by the JVM's proxy
   * settings.
   */
  static Route to(Uri wanted, Map<String, String> addresses) throws IOException {
    Uri target = Optional.ofNullable(addresses.get(wanted.origin())).map(Uri::parse).orElse(wanted);
    List<Proxy> proxies =
        Passage.through(
            () ->
                ProxySelector.getDefault() == null
                    ? List.of()
                    : ProxySelector.getDefault().select(target.toJavaUri()));
    Optional<ProxyOnTheWay> proxy =
        proxies.stream()
            .findFirst()
            .filter(first -> first.type() != Proxy.Type.DIRECT)
            .map(first -> ProxyOnTheWay.of(first, target));
    return new Route(target, proxy);
  }

  boolean isSecure() {
    return target.scheme().equals("https");
  }

  /** The proxy, where it is told the URL of each call, not asked for a tunnel. */
  Optional<ProxyOnTheWay> proxyOfEachCall() {
    return proxy.filter(it -> !it.tunnels(target));
  }

  /** The proxy, where it is asked for a tunnel. */
  Optional<ProxyOnTheWay> tunnel() {
    return proxy.filter(it -> it.tunnels(target));
  }

  /**
   * The address to connect to; looked up with no hook in between, or left to the proxy that makes a
   * tunnel to it.
   */
  InetSocketAddress address() throws IOException {
    if (tunnel().isPresent()) {
      return InetSocketAddress.createUnresolved(target.host(), target.port());
    }
    if (proxy.isPresent()) {
      return proxy.get().address();
    }
    return new InetSocketAddress(
        Passage.through(() -> InetAddress.getByName(target.host())), target.port());
  }
}
