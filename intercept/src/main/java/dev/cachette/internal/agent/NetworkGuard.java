// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.agent;

import dev.cachette.calls.MadeBy;
import java.net.ConnectException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.SocketAddress;
import java.net.UnknownHostException;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BiPredicate;
import org.jspecify.annotations.Nullable;

/**
 * Refuses what leaves this machine while nothing is intercepted. Runs on the threads of the code
 * under test.
 */
public final class NetworkGuard implements AutoCloseable {

  private static final int ANY_PORT = -1;

  private final Attribution attribution;
  private final HookHolder holder;
  private final BiPredicate<String, Integer> allowed;
  private final LocalHost localHost = new LocalHost();

  /**
   * The look-up that was just refused: some clients go on and connect, which is no further call.
   */
  private final ThreadLocal<UnknownHostException> notLookedUp = new ThreadLocal<>();

  /** By destination and thread. Guarded by itself. */
  private final Map<String, Refused> refused = new LinkedHashMap<>();

  /** Connections to one destination by one thread, and how many there were. */
  public record Refused(String destination, MadeBy madeBy, int times) {}

  private NetworkGuard(HookHolder holder, BiPredicate<String, Integer> allowed) {
    this.holder = holder;
    this.attribution = new Attribution(holder);
    this.allowed = allowed;
  }

  /**
   * Begins to guard.
   *
   * @param allowed tests a host and a port, which is -1 while the name is looked up
   * @throws InterceptionUnavailable if this JVM does not allow it
   */
  public static NetworkGuard begin(BiPredicate<String, Integer> allowed) {
    NetworkGuard guard = new NetworkGuard(Hooks.install(), allowed);
    guard.holder.guard(guard::connect, guard::resolve);
    return guard;
  }

  /** Stops guarding. */
  @Override
  public void close() {
    holder.guard(null, null);
  }

  /** Returns what was refused. */
  public List<Refused> refused() {
    synchronized (refused) {
      return List.copyOf(refused.values());
    }
  }

  /** Returns where connections went, outside of this machine, while nothing was intercepted. */
  public static List<String> left() {
    LocalHost local = new LocalHost();
    return Hooks.install().left().stream()
        .filter(InetSocketAddress.class::isInstance)
        .map(InetSocketAddress.class::cast)
        .filter(address -> !isLocal(local, address))
        .map(address -> address.getHostString() + ":" + address.getPort())
        .distinct()
        .toList();
  }

  private static boolean isLocal(LocalHost local, InetSocketAddress address) {
    return local.isNamed(address.getHostString())
        || address.getAddress() != null && local.isAt(address.getAddress());
  }

  private InetAddress @Nullable [] resolve(String host) {
    if (!InterceptionBypass.isOpen()
        && !localHost.isNamed(host)
        && !localHost.isAtLiteral(host)
        && !allowed.test(host, ANY_PORT)) {
      UnknownHostException unknown = new UnknownHostException(refuse(host));
      notLookedUp.set(unknown);
      throw unchecked(unknown);
    }
    return null;
  }

  private SocketAddress connect(Object socket, SocketAddress remote) {
    UnknownHostException before = notLookedUp.get();
    notLookedUp.remove();
    if (before != null && remote instanceof InetSocketAddress address && address.isUnresolved()) {
      throw unchecked(before);
    }
    if (!InterceptionBypass.isOpen()
        && remote instanceof InetSocketAddress address
        && !isLocal(localHost, address)
        && !allowed.test(address.getHostString(), address.getPort())) {
      throw unchecked(
          new ConnectException(refuse(address.getHostString() + ":" + address.getPort())));
    }
    return remote;
  }

  private String refuse(String destination) {
    MadeBy madeBy = attribution.current().shown();
    synchronized (refused) {
      refused.merge(
          destination + " " + madeBy,
          new Refused(destination, madeBy, 1),
          (old, one) -> new Refused(destination, madeBy, old.times() + 1));
    }
    return "Cachette guards the network, and refused "
        + destination
        + " to "
        + madeBy
        + ": nothing was intercepted. Fix: annotate the test class with @InterceptHttp, or allow"
        + " the host: cachette.guardAllows="
        + destination;
  }

  /** Throws an IOException that the interface does not declare, but the woven method may throw. */
  @SuppressWarnings("unchecked")
  private static <T extends Throwable> RuntimeException unchecked(Throwable checked) throws T {
    throw (T) checked;
  }
}
