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
 * @param proxy the HTTP proxy on the way; empty if there is none
 */
record Route(Uri target, Optional<InetSocketAddress> proxy) {

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
    Optional<InetSocketAddress> proxy =
        proxies.stream()
            .filter(it -> it.type() == Proxy.Type.HTTP)
            .map(it -> (InetSocketAddress) it.address())
            .findFirst();
    return new Route(target, proxy);
  }

  boolean isSecure() {
    return target.scheme().equals("https");
  }

  /** Whether the proxy is asked for a tunnel, not for the answer. */
  boolean isTunnelled() {
    return isSecure() && proxy.isPresent();
  }

  /** The address to connect to; looked up with no hook in between. */
  InetSocketAddress address() throws IOException {
    String host = proxy.map(InetSocketAddress::getHostString).orElse(target.host());
    int port = proxy.map(InetSocketAddress::getPort).orElse(target.port());
    return new InetSocketAddress(Passage.through(() -> InetAddress.getByName(host)), port);
  }
}
