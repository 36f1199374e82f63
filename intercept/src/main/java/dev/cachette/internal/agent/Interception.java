// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.agent;

import dev.cachette.answer.Fault;
import dev.cachette.answer.Fault.Stage;
import dev.cachette.internal.uri.Hosts;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.ConnectException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ProxySelector;
import java.net.SocketAddress;
import java.net.SocketImpl;
import java.net.SocketOptions;
import java.net.StandardSocketOptions;
import java.net.UnknownHostException;
import java.nio.channels.NetworkChannel;
import java.nio.channels.SocketChannel;
import java.security.cert.CertificateException;
import java.security.cert.X509Certificate;
import java.time.Duration;
import java.time.Instant;
import java.util.Collections;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.WeakHashMap;
import javax.net.ssl.SSLEngine;
import javax.net.ssl.SSLSession;
import javax.net.ssl.SSLSocket;
import org.jspecify.annotations.Nullable;

/**
 * The interception of this JVM's connections, from {@link #begin} to {@link #close}.
 *
 * <p>The hooks run on the threads of the code under test, so nothing here waits for another thread.
 * An internal failure becomes a failed connection: nothing is ever let through by mistake.
 */
public final class Interception implements AutoCloseable {

  private final HookHolder holder;
  private final Object owner;
  private final Destinations destinations;
  private final ServerTrust serverTrust;
  private final LocalHost localHost = new LocalHost();
  private final SyntheticAddresses synthetic = new SyntheticAddresses();
  private final LocalProxies localProxies = new LocalProxies(localHost, ProxySelector.getDefault());
  private final ProxyBypass proxyBypass;
  private final UnreachableSockets deadEnds;
  private final OldConnections oldConnections;
  private final SecondAttempt secondAttempt = new SecondAttempt();

  /** The actions for when sockets that are let through are connected. */
  private final Map<Object, Runnable> through = Collections.synchronizedMap(new WeakHashMap<>());

  /**
   * The host that this thread has just failed to resolve: some clients continue with an unresolved
   * address, and get the same fault again, not the next one.
   */
  private final ThreadLocal<String> unknownHost = new ThreadLocal<>();

  /** Set while the JDK validates a chain, which calls back. */
  private final ThreadLocal<Boolean> judging = new ThreadLocal<>();

  private Interception(
      HookHolder holder, Object owner, Destinations destinations, ServerTrust serverTrust) {
    this.holder = holder;
    this.owner = owner;
    this.destinations = destinations;
    this.serverTrust = serverTrust;
    this.proxyBypass = new ProxyBypass(host -> !passes(host, OptionalInt.empty()));
    this.deadEnds = new UnreachableSockets(holder::shutDown);
    this.oldConnections = new OldConnections(holder);
  }

  /**
   * Redirects every connection that leaves this machine to the given destinations.
   *
   * @param owner its toString says who intercepts and since where
   * @throws InterceptionUnavailable if this JVM does not allow it
   * @throws IllegalStateException if interception is active already; the message names the owner
   */
  public static Interception begin(
      Object owner, Destinations destinations, ServerTrust serverTrust) {
    HookHolder holder = Hooks.install();
    Interception begun = new Interception(holder, owner, destinations, serverTrust);
    Object present =
        holder.claim(owner, begun::connect, begun::resolve, begun::trusts, begun::answer);
    if (present != null) {
      throw new IllegalStateException(
          present
              + " is intercepting in this JVM already. Fix: close it first; one Cachette serves the"
              + " whole JVM, and tests that intercept must not run at the same time.");
    }
    begun.proxyBypass.install();
    begun.endOldConnections();
    return begun;
  }

  /**
   * Installs the hooks, so that connections made from now on are tracked.
   *
   * @throws InterceptionUnavailable if this JVM does not allow it
   */
  public static void prepare() {
    Hooks.install();
  }

  /** Returns what tells who made a call. */
  public Attribution attribution() {
    return new Attribution(holder);
  }

  /** Returns what notices that clients use connections that nobody serves. */
  public UnservedConnections unservedConnections() {
    return new UnservedConnections(holder);
  }

  /** Returns what lets clients time out. */
  public ClientTimers timers() {
    return new ClientTimers(holder);
  }

  /** Releases the hooks, and restores the proxy settings. */
  @Override
  public void close() {
    try (UnreachableSockets closing = deadEnds) {
      holder.release(owner);
    } catch (IOException notClosed) {
      throw new UncheckedIOException(notClosed);
    } finally {
      proxyBypass.uninstall();
    }
  }

  /**
   * Closes earlier connections to hosts that are now intercepted; clients make new ones for their
   * next calls.
   */
  public void endOldConnections() {
    oldConnections.end(address -> interceptedHost(address).isPresent());
  }

  /** The clock of the session was moved: attempts to connect that nobody answers may time out. */
  public void clockMoved() {
    deadEnds.waiting().forEach(this::pass);
  }

  /** Ends connection attempts that wait for a timeout. */
  public void endWaiting() {
    try {
      deadEnds.endWaiting();
    } catch (IOException notClosed) {
      throw new UncheckedIOException(notClosed);
    }
  }

  /** Returns true if a destination is this machine. */
  public boolean isLocal(String host) {
    return localHost.isNamed(host) || localHost.isAtLiteral(host);
  }

  private InetAddress @Nullable [] resolve(String host) {
    if (InterceptionBypass.isOpen() || passes(host, OptionalInt.empty())) {
      return null;
    }
    if (meet(Stage.NAME, host, OptionalInt.empty()).isPresent()) {
      unknownHost.set(host);
      throw Interception.<RuntimeException>unchecked(unknown(host));
    }
    unknownHost.remove();
    return new InetAddress[] {synthetic.of(host)};
  }

  /** Answers other questions of the hooks. */
  private @Nullable Object answer(String question, Object about) {
    boolean ours = !InterceptionBypass.isOpen();
    return switch (question) {
      case "intercepts" -> ours && !passes((String) about, OptionalInt.empty());
      case "http3" ->
          ours && about instanceof InetSocketAddress address
              ? interceptedHost(address)
                  .map(host -> destinations.refuseHttp3(host, address.getPort()))
                  .orElse(null)
              : null;
      case "connected" -> {
        Optional.ofNullable(through.remove(about)).ifPresent(Runnable::run);
        yield null;
      }
      default -> throw new IllegalArgumentException(question);
    };
  }

  private boolean passes(String host, OptionalInt port) {
    return localHost.isNamed(host) || destinations.letsThrough(host, port);
  }

  private SocketAddress connect(Object socket, SocketAddress remote) {
    if (!(remote instanceof InetSocketAddress address)) {
      return remote;
    }
    if (InterceptionBypass.isOpen()) {
      // A new object, so that the hook does not take it for a connection of the application.
      return new InetSocketAddress(address.getAddress(), address.getPort());
    }
    Optional<String> host = interceptedHost(address);
    if (host.isEmpty()) {
      if (isLetThrough(address)) {
        through.put(
            socket,
            destinations.connectsThrough(
                address.getHostString(), address.getPort(), yet(socket, address)));
      }
      return remote;
    }
    try {
      return turn(socket, address, host.get());
    } catch (ConnectException | UnknownHostException meant) {
      throw Interception.<RuntimeException>unchecked(meant);
    } catch (IOException | RuntimeException failed) {
      ConnectException refused =
          new ConnectException(
              "Cachette cannot intercept " + host.get() + ":" + address.getPort() + ": " + failed);
      refused.initCause(failed);
      throw Interception.<RuntimeException>unchecked(refused);
    }
  }

  /** Native sockets do not tell. */
  private static String yet(Object socket, InetSocketAddress address) {
    boolean tells = socket instanceof SocketImpl || socket instanceof SocketChannel;
    return !tells ? "" : address.isUnresolved() ? "unknown host" : "not connected";
  }

  private boolean isLetThrough(InetSocketAddress address) {
    boolean local =
        address.isUnresolved()
            ? localHost.isNamed(address.getHostString())
            : localHost.isAt(address.getAddress());
    return !local
        && destinations.letsThrough(address.getHostString(), OptionalInt.of(address.getPort()));
  }

  private InetSocketAddress turn(Object socket, InetSocketAddress address, String host)
      throws IOException {
    OptionalInt port = OptionalInt.of(address.getPort());
    if (address.isUnresolved()) {
      boolean lookedUp = host.equals(unknownHost.get());
      unknownHost.remove();
      if (lookedUp || meet(Stage.NAME, host, port).isPresent()) {
        throw unknown(host);
      }
    }
    // Before the attempt is noted: who sees it may move the clock.
    Instant since = destinations.now();
    Optional<Fault> fault = meet(Stage.CONNECTION, host, port);
    if (fault.isPresent()) {
      return fault.get().kind() == Fault.Kind.CONNECT_TIMEOUT
          ? unanswered(socket, UnreachableSockets.Waiting.of(host, address.getPort(), since))
          : deadEnds.refusing();
    }
    InetSocketAddress listener =
        destinations.listenerFor(host, address.getPort(), new ConnectingClient(socket));
    sendSmallPacketsAtOnce(socket);
    return listener;
  }

  /** Lets an attempt wait for its timeout, which the clock may have passed already. */
  private InetSocketAddress unanswered(Object socket, UnreachableSockets.Waiting attempt)
      throws IOException {
    InetSocketAddress silent = deadEnds.silent(socket, attempt);
    pass(socket, attempt);
    return silent;
  }

  private void pass(Object socket, UnreachableSockets.Waiting attempt) {
    Duration passed = Duration.between(attempt.since(), destinations.now());
    if (holder.passConnecting(socket, attempt.host(), attempt.port(), passed)) {
      deadEnds.timedOut(socket);
    }
  }

  /** Returns the fault that an attempt meets; further ones of a call meet the same. */
  private Optional<Fault> meet(Stage stage, String host, OptionalInt port) {
    if (secondAttempt.isOne(host)) {
      return secondAttempt.fault(stage, host);
    }
    Optional<Fault> fault = destinations.meet(stage, host, port);
    fault.ifPresent(met -> secondAttempt.note(host, met));
    return fault;
  }

  /** Uses the JDK's words. */
  private static UnknownHostException unknown(String host) {
    return new UnknownHostException(host + ": Name or service not known");
  }

  /** Returns the host, if its calls on this port are to be intercepted. */
  private Optional<String> interceptedHost(InetSocketAddress address) {
    String name = Hosts.canonical(address.getHostString());
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
    String host = address.getHostString();
    return local
        ? destinations.wantsLocal(host, address.getPort()) || localProxies.isAt(address)
        : !destinations.letsThrough(host, OptionalInt.of(address.getPort()));
  }

  /** Without this, Nagle's algorithm delays the TLS handshake of some clients by 40 ms. */
  private static void sendSmallPacketsAtOnce(Object socket) throws IOException {
    if (socket instanceof SocketOptions plain) {
      plain.setOption(SocketOptions.TCP_NODELAY, true);
    } else if (socket instanceof NetworkChannel channel) {
      channel.setOption(StandardSocketOptions.TCP_NODELAY, true);
    }
  }

  private boolean trusts(X509Certificate[] chain, Object connection) {
    if (chain.length == 0 || judging.get() != null) {
      return false;
    }
    judging.set(true);
    try {
      return serverTrust.trusts(chain, hostAskedFor(connection), connection);
    } catch (CertificateException refused) {
      throw Interception.<RuntimeException>unchecked(refused);
    } finally {
      judging.remove();
    }
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

  /** Throws an IOException that the interface does not declare, but the woven method may throw. */
  @SuppressWarnings("unchecked")
  private static <T extends Throwable> RuntimeException unchecked(Throwable checked) throws T {
    throw (T) checked;
  }
}
