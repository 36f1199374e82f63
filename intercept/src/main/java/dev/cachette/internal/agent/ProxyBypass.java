// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.agent;

import java.io.IOException;
import java.net.Proxy;
import java.net.ProxySelector;
import java.net.SocketAddress;
import java.net.URI;
import java.util.List;
import java.util.function.Predicate;

/**
 * Lets intercepted hosts be called directly if the JVM is configured to use a proxy, which would
 * otherwise be the only visible host.
 */
final class ProxyBypass extends ProxySelector {

  private final Predicate<String> intercepted;
  private final ProxySelector settings = ProxySelector.getDefault();

  /** Clients keep the selector that they were created with, so it must become inactive. */
  private volatile boolean installed;

  ProxyBypass(Predicate<String> intercepted) {
    this.intercepted = intercepted;
  }

  void install() {
    installed = true;
    ProxySelector.setDefault(this);
  }

  /** Restores the previous selector, unless it was replaced since. */
  void uninstall() {
    installed = false;
    if (ProxySelector.getDefault() == this) {
      ProxySelector.setDefault(settings);
    }
  }

  @Override
  public List<Proxy> select(URI uri) {
    boolean direct =
        installed && !InterceptionBypass.isOpen() && uri != null && uri.getHost() != null;
    if (settings == null || direct && intercepted.test(uri.getHost())) {
      return List.of(Proxy.NO_PROXY);
    }
    return settings.select(uri);
  }

  @Override
  public void connectFailed(URI uri, SocketAddress address, IOException failure) {
    if (settings != null) {
      settings.connectFailed(uri, address, failure);
    }
  }
}
