package dev.cachette.internal.real;

import dev.cachette.http.Uri;
import dev.cachette.internal.agent.Passage;
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
 * A proxy of the JVM's settings, HTTP or SOCKS, with what the JVM's {@link Authenticator} says of
 * it.
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

  /** As the JDK's own sockets take them where there is no authenticator. */
  private static Optional<PasswordAuthentication> ofProperties() {
    return Optional.ofNullable(System.getProperty("java.net.socks.username"))
        .map(
            user ->
                new PasswordAuthentication(
                    user, System.getProperty("java.net.socks.password", "").toCharArray()));
  }

  /** Whether it makes a tunnel to this target, through which anything can be spoken. */
  boolean tunnels(Uri target) {
    return type == Proxy.Type.SOCKS || target.scheme().equals("https");
  }

  /** Its own address; looked up with no hook in between. */
  InetSocketAddress address() throws IOException {
    return new InetSocketAddress(Passage.through(() -> InetAddress.getByName(host)), port);
  }

  /** Asks it for a tunnel: by CONNECT (RFC 9110 section 9.3.6), or by SOCKS (RFC 1928). */
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

  /** What a call that is no tunnel says of its sender (RFC 9110 section 11.7.2). */
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

  /** Where it is, without credentials. */
  @Override
  public String toString() {
    return type + " proxy " + host + ":" + port;
  }
}
