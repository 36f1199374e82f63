// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.agent;

import java.net.InetSocketAddress;
import java.net.Proxy;
import java.net.ProxySelector;
import java.net.URI;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * The HTTP proxies on this machine that the JVM is configured to use. Connections to this machine
 * are not intercepted, except to these: they would carry the calls out unseen.
 */
final class LocalProxies {

  /** The properties of the JDK, with the default of the port. */
  private static final Map<String, Integer> PROPERTIES = Map.of("http", 80, "https", 443);

  private static final List<String> VARIABLES = List.of("HTTP_PROXY", "HTTPS_PROXY", "ALL_PROXY");

  /** Whatever a selector would use a proxy for. */
  private static final List<URI> ANYWHERE =
      List.of(URI.create("http://cachette.invalid/"), URI.create("https://cachette.invalid/"));

  private final LocalHost localHost;
  private final @Nullable ProxySelector selector;

  /**
   * Creates them.
   *
   * @param selector the selector of the JVM, which clients may have kept
   */
  LocalProxies(LocalHost localHost, @Nullable ProxySelector selector) {
    this.localHost = localHost;
    this.selector = selector;
  }

  /** Returns true if an address of this machine is that of a proxy. */
  boolean isAt(InetSocketAddress address) {
    return Stream.of(ofProperties(), ofEnvironment(), ofSelector())
        .flatMap(all -> all)
        .anyMatch(
            proxy ->
                proxy.getPort() == address.getPort() && isOfThisMachine(proxy.getHostString()));
  }

  private boolean isOfThisMachine(String host) {
    return localHost.isNamed(host) || localHost.isAtLiteral(host);
  }

  /** Read each time: a test may set them. */
  private static Stream<InetSocketAddress> ofProperties() {
    return PROPERTIES.entrySet().stream()
        .flatMap(
            scheme -> {
              String host = System.getProperty(scheme.getKey() + ".proxyHost");
              int port = Integer.getInteger(scheme.getKey() + ".proxyPort", scheme.getValue());
              return address(host, port).stream();
            });
  }

  private static Stream<InetSocketAddress> ofEnvironment() {
    return VARIABLES.stream()
        .flatMap(name -> Stream.of(name, name.toLowerCase(Locale.ROOT)))
        .map(System::getenv)
        .flatMap(url -> ofUrl(url).stream());
  }

  private static Optional<InetSocketAddress> ofUrl(@Nullable String url) {
    if (url == null) {
      return Optional.empty();
    }
    try {
      URI proxy = URI.create(url.contains("://") ? url : "http://" + url);
      return address(proxy.getHost(), proxy.getPort());
    } catch (IllegalArgumentException malformed) {
      return Optional.empty();
    }
  }

  private Stream<InetSocketAddress> ofSelector() {
    return selector == null
        ? Stream.empty()
        : ANYWHERE.stream()
            .flatMap(uri -> selector.select(uri).stream())
            .filter(proxy -> proxy.type() == Proxy.Type.HTTP)
            .map(Proxy::address)
            .filter(InetSocketAddress.class::isInstance)
            .map(InetSocketAddress.class::cast);
  }

  /** Names are not looked up: the caller knows that an address is of this machine. */
  private static Optional<InetSocketAddress> address(@Nullable String host, int port) {
    return host == null || host.isBlank() || port <= 0
        ? Optional.empty()
        : Optional.of(InetSocketAddress.createUnresolved(host, port));
  }
}
