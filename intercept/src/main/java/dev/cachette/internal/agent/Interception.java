package dev.cachette.internal.agent;

import java.io.IOException;
import java.net.ConnectException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.SocketAddress;
import java.net.SocketOptions;
import java.net.StandardSocketOptions;
import java.nio.channels.NetworkChannel;
import java.security.cert.X509Certificate;
import java.util.Optional;
import javax.net.ssl.SSLEngine;
import javax.net.ssl.SSLSession;
import javax.net.ssl.SSLSocket;
import org.jspecify.annotations.Nullable;

/**
 * The interception of this JVM's connections, from {@link #begin} to {@link #close}.
 *
 * <p>What the hooks ask runs on the threads of the code under test, so nothing here waits for
 * another thread. A failure of ours becomes a failed connection: nothing is ever let through by
 * mistake.
 */
public final class Interception implements AutoCloseable {

  private final HookHolder holder;
  private final Object owner;
  private final Destinations destinations;
  private final ServerTrust serverTrust;
  private final LocalHost localHost = new LocalHost();
  private final SyntheticAddresses synthetic = new SyntheticAddresses();
  private final ProxyBypass proxyBypass;

  private Interception(
      HookHolder holder, Object owner, Destinations destinations, ServerTrust serverTrust) {
    this.holder = holder;
    this.owner = owner;
    this.destinations = destinations;
    this.serverTrust = serverTrust;
    this.proxyBypass = new ProxyBypass(host -> !localHost.isNamed(host));
  }

  /**
   * Turns every connection that leaves this machine to the given destinations.
   *
   * @param owner says in its toString who intercepts and since where
   * @throws InterceptionUnavailable if this JVM does not let us
   * @throws IllegalStateException if somebody intercepts already; the message names the owner
   */
  public static Interception begin(
      Object owner, Destinations destinations, ServerTrust serverTrust) {
    HookHolder holder = Hooks.install();
    Interception begun = new Interception(holder, owner, destinations, serverTrust);
    Object present = holder.claim(owner, begun::connect, begun::resolve, begun::trusts);
    if (present != null) {
      throw new IllegalStateException(
          present
              + " intercepts in this JVM already. Mend: close it first; one Cachette serves the "
              + "whole JVM, and tests that intercept must not run at the same time.");
    }
    begun.proxyBypass.install();
    return begun;
  }

  /** Gives the hooks and the proxy settings back. */
  @Override
  public void close() {
    try {
      holder.release(owner);
    } finally {
      proxyBypass.uninstall();
    }
  }

  /** Whether a destination is this machine itself. */
  public boolean isLocal(String host) {
    return localHost.isNamed(host) || localHost.isAtLiteral(host);
  }

  private InetAddress @Nullable [] resolve(String host) {
    return localHost.isNamed(host) ? null : new InetAddress[] {synthetic.of(host)};
  }

  private SocketAddress connect(Object socket, SocketAddress remote) {
    if (!(remote instanceof InetSocketAddress address)) {
      return remote;
    }
    Optional<String> host = interceptedHost(address);
    if (host.isEmpty()) {
      return remote;
    }
    try {
      InetSocketAddress listener = destinations.listenerFor(host.get(), address.getPort());
      sendSmallPacketsAtOnce(socket);
      return listener;
    } catch (IOException | RuntimeException failed) {
      ConnectException refused =
          new ConnectException(
              "Cachette cannot intercept " + host.get() + ":" + address.getPort() + ": " + failed);
      refused.initCause(failed);
      throw Interception.<RuntimeException>unchecked(refused);
    }
  }

  /** The host, if its calls are to be intercepted at this port. */
  private Optional<String> interceptedHost(InetSocketAddress address) {
    String name = address.getHostString();
    InetAddress resolved = address.getAddress();
    if (resolved == null) {
      return Optional.of(name).filter(host -> wanted(localHost.isNamed(host), address));
    }
    Optional<String> stoodFor = synthetic.hostOf(resolved);
    if (stoodFor.isPresent()) {
      return stoodFor;
    }
    return Optional.of(name).filter(host -> wanted(localHost.isAt(resolved), address));
  }

  private boolean wanted(boolean local, InetSocketAddress address) {
    return !local || destinations.wantsLocal(address.getHostString(), address.getPort());
  }

  /** Without it, Nagle's algorithm makes the TLS handshake of some clients wait for 40 ms. */
  private static void sendSmallPacketsAtOnce(Object socket) throws IOException {
    if (socket instanceof SocketOptions plain) {
      plain.setOption(SocketOptions.TCP_NODELAY, true);
    } else if (socket instanceof NetworkChannel channel) {
      channel.setOption(StandardSocketOptions.TCP_NODELAY, true);
    }
  }

  private boolean trusts(X509Certificate[] chain, Object connection) {
    return chain.length > 0 && serverTrust.isOurs(chain[0], hostAskedFor(connection));
  }

  private static Optional<String> hostAskedFor(Object connection) {
    SSLSession session = null;
    if (connection instanceof SSLSocket socket) {
      session = socket.getHandshakeSession();
    } else if (connection instanceof SSLEngine engine) {
      session = engine.getHandshakeSession();
    }
    return Optional.ofNullable(session).map(SSLSession::getPeerHost);
  }

  /** The woven method may throw an IOException, though the interface between us may not. */
  @SuppressWarnings("unchecked")
  private static <T extends Throwable> RuntimeException unchecked(Throwable checked) throws T {
    throw (T) checked;
  }
}
