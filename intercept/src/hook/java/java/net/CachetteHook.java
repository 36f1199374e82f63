package java.net;

import java.security.cert.X509Certificate;
import java.util.function.BiFunction;
import java.util.function.Function;

/**
 * Where the woven classes of the JDK ask what to do. It lives in {@code java.net} so that every
 * class loader finds it, and does nothing at all while nobody holds it.
 */
public final class CachetteHook {

  /** Whoever intercepts now; its toString says who and since where. Guards the other fields. */
  private static Object owner;

  private static boolean woven;

  private static volatile BiFunction<Object, SocketAddress, SocketAddress> connect;
  private static volatile Function<String, InetAddress[]> resolve;
  private static volatile BiFunction<X509Certificate[], Object, Boolean> trust;

  private CachetteHook() {}

  /** Whether the classes of the JDK ask this one already. */
  public static synchronized boolean isWoven() {
    return woven;
  }

  /** Notes that they do. */
  public static synchronized void markWoven() {
    woven = true;
  }

  /** Takes the hook; answers the present owner instead where there is one, else null. */
  public static synchronized Object claim(
      Object newOwner,
      BiFunction<Object, SocketAddress, SocketAddress> onConnect,
      Function<String, InetAddress[]> onResolve,
      BiFunction<X509Certificate[], Object, Boolean> onTrust) {
    if (owner != null) {
      return owner;
    }
    owner = newOwner;
    trust = onTrust;
    connect = onConnect;
    resolve = onResolve;
    return null;
  }

  /** Gives the hook back, if this is its owner. */
  public static synchronized void release(Object oldOwner) {
    if (owner == oldOwner) {
      owner = null;
      resolve = null;
      connect = null;
      trust = null;
    }
  }

  /** Where a socket that is about to connect shall go. */
  public static SocketAddress connect(Object socket, SocketAddress remote) {
    BiFunction<Object, SocketAddress, SocketAddress> handler = connect;
    return handler == null || remote == null ? remote : handler.apply(socket, remote);
  }

  /** The addresses of a host, or null to let the JDK find them. */
  public static InetAddress[] resolve(String host) {
    Function<String, InetAddress[]> handler = resolve;
    return handler == null || host == null ? null : handler.apply(host);
  }

  /** Whether a server's chain is trusted without asking the JDK. */
  public static boolean trusts(X509Certificate[] chain, Object connection, boolean ofClient) {
    BiFunction<X509Certificate[], Object, Boolean> handler = trust;
    return handler != null && !ofClient && chain != null && handler.apply(chain, connection);
  }
}
