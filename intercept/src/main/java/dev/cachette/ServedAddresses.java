// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.http.Uri;
import dev.cachette.internal.wire.WireServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;

/** Where a session can be called without interception, and the properties that say so. */
final class ServedAddresses {

  private final WireServer server;
  private final Settings settings;
  private final Map<String, Optional<String>> oldProperties = new LinkedHashMap<>();

  /** Binds a port. */
  @FunctionalInterface
  private interface Port {

    InetSocketAddress bind() throws IOException;
  }

  ServedAddresses(WireServer server, Settings settings) {
    this.server = server;
    this.settings = settings;
  }

  String baseUrl() {
    return url(any());
  }

  String baseUrlFor(String origin) {
    Uri at = Uri.parseOrigin(origin);
    return url(bound(() -> server.listenerServingAs(at.scheme(), at.host(), at.port())));
  }

  /** Returns the port at the address of the settings, serving as their origin if it is set. */
  InetSocketAddress any() {
    Optional<Uri> as = settings.servingAs().map(Uri::parseOrigin);
    InetSocketAddress address = settings.listenAddress();
    return bound(
        () ->
            as.isEmpty()
                ? server.sharedListener(address)
                : server.listenerServingAs(
                    as.get().scheme(), as.get().host(), as.get().port(), address));
  }

  /** Sets the properties that the settings name. */
  void setProperties() {
    settings
        .baseUrlInProperty()
        .forEach(
            (property, origin) -> {
              oldProperties.put(property, Optional.ofNullable(System.getProperty(property)));
              System.setProperty(property, baseUrlFor(origin));
            });
  }

  /** Restores the properties. */
  void restoreProperties() {
    oldProperties.forEach(
        (property, old) ->
            old.ifPresentOrElse(
                value -> System.setProperty(property, value),
                () -> System.clearProperty(property)));
  }

  private static String url(InetSocketAddress bound) {
    InetAddress address = bound.getAddress();
    String host = address.isAnyLocalAddress() ? "127.0.0.1" : address.getHostAddress();
    return "http://" + (host.indexOf(':') < 0 ? host : "[" + host + "]") + ":" + bound.getPort();
  }

  private static InetSocketAddress bound(Port port) {
    try {
      return port.bind();
    } catch (IOException noPort) {
      throw new IllegalStateException(noPort.getMessage(), noPort);
    }
  }
}
