package dev.cachette.internal.agent;

import java.io.IOException;
import java.net.Proxy;
import java.net.ProxySelector;
import java.net.SocketAddress;
import java.net.URI;
import java.util.List;
import java.util.function.Predicate;

/**
 * Makes intercepted hosts be called directly where the JVM is set to go through a proxy, which
 * would otherwise be the only host we see.
 */
final class ProxyBypass extends ProxySelector {

  private final Predicate<String> intercepted;
  private final ProxySelector settings = ProxySelector.getDefault();

  /** Clients keep the selector they were made with, so it must know when we are gone. */
  private volatile boolean installed;

  ProxyBypass(Predicate<String> intercepted) {
    this.intercepted = intercepted;
  }

  void install() {
    installed = true;
    ProxySelector.setDefault(this);
  }

  /** Puts the selector back that was there, unless somebody has set another since. */
  void uninstall() {
    installed = false;
    if (ProxySelector.getDefault() == this) {
      ProxySelector.setDefault(settings);
    }
  }

  @Override
  public List<Proxy> select(URI uri) {
    boolean direct = installed && !Passage.isOpen() && uri != null && uri.getHost() != null;
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
