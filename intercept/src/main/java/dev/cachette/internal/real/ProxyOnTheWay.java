// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.real;

import dev.cachette.http.Uri;
import dev.cachette.internal.agent.InterceptionBypass;
import io.netty.handler.proxy.HttpProxyHandler;
import io.netty.handler.proxy.ProxyHandler;
import io.netty.handler.proxy.Socks4ProxyHandler;
import io.netty.handler.proxy.Socks5ProxyHandler;
import java.io.IOException;
import java.net.Authenticator;
import java.net.Authenticator.RequestorType;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.PasswordAuthentication;
import java.net.Proxy;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * A proxy from the JVM's settings, HTTP or SOCKS, with the credentials of the JVM's {@link
 * Authenticator}.
 */
record ProxyOnTheWay(
    Proxy.Type type, String host, int port, Optional<PasswordAuthentication> credentials) {

  static ProxyOnTheWay of(Proxy proxy, Uri target) {
    InetSocketAddress at = (InetSocketAddress) proxy.address();
    boolean socks = proxy.type() == Proxy.Type.SOCKS;
    Optional<PasswordAuthentication> credentials =
        Optional.ofNullable(
            Authenticator.requestPasswordAuthentication(
                at.getHostString(),
                at.getAddress(),
                at.getPort(),
                socks ? "SOCKS5" : target.scheme(),
                socks ? "SOCKS authentication" : "",
                socks ? null : "basic",
                null,
                RequestorType.PROXY));
    return new ProxyOnTheWay(
        proxy.type(),
        at.getHostString(),
        at.getPort(),
        socks ? credentials.or(ProxyOnTheWay::ofProperties) : credentials);
  }

  /** The defaults of the JDK's own sockets, without an authenticator. */
  private static Optional<PasswordAuthentication> ofProperties() {
    return Optional.ofNullable(System.getProperty("java.net.socks.username"))
        .map(
            user ->
                new PasswordAuthentication(
                    user, System.getProperty("java.net.socks.password", "").toCharArray()));
  }

  /** Returns true if it makes a tunnel to this target. */
  boolean tunnels(Uri target) {
    return type == Proxy.Type.SOCKS || target.scheme().equals("https");
  }

  /** Returns its address, resolved without hooks. */
  InetSocketAddress address() throws IOException {
    return new InetSocketAddress(
        InterceptionBypass.through(() -> InetAddress.getByName(host)), port);
  }

  /** Requests a tunnel: by CONNECT (RFC 9110 section 9.3.6), or by SOCKS (RFC 1928). */
  ProxyHandler handler() throws IOException {
    if (type == Proxy.Type.HTTP) {
      return credentials.isPresent()
          ? new HttpProxyHandler(address(), user(), password())
          : new HttpProxyHandler(address());
    }
    return Integer.getInteger("socksProxyVersion", 5) == 4
        ? new Socks4ProxyHandler(address(), user())
        : new Socks5ProxyHandler(address(), user(), password());
  }

  /** Returns the proxy credentials of a call without a tunnel (RFC 9110 section 11.7.2). */
  Optional<String> authorization() {
    return credentials.map(
        given ->
            "Basic "
                + Base64.getEncoder()
                    .encodeToString(
                        (given.getUserName() + ":" + password()).getBytes(StandardCharsets.UTF_8)));
  }

  private @Nullable String user() {
    return credentials.map(PasswordAuthentication::getUserName).orElse(null);
  }

  private @Nullable String password() {
    return credentials.map(given -> new String(given.getPassword())).orElse(null);
  }

  /** Returns its address, without credentials. */
  @Override
  public String toString() {
    return type + " proxy " + host + ":" + port;
  }
}
