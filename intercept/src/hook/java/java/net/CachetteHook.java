package java.net;

import java.security.cert.X509Certificate;
import java.util.function.BiFunction;
import java.util.function.Function;

/**
 * Where the woven classes of the JDK ask what to do. It lives in {@code java.net} so that every
 * class loader finds it, and does nothing at all while nobody holds it.
 *
 * <p>Nothing can be compiled against it, so its holder speaks to it by {@link #CONTROL}, an
 * interface of the JDK's: reflection would make a class loader a method, by and by.
 */
public final class CachetteHook implements BiFunction<String, Object[], Object> {

  /** Takes the name of a method below, and its arguments. */
  public static final BiFunction<String, Object[], Object> CONTROL = new CachetteHook();

  /** Whoever intercepts now; its toString says who and since where. Guarded by this class. */
  private static Object owner;

  /** Whether the classes of the JDK ask this one already. Guarded by this class. */
  private static boolean woven;

  private static volatile BiFunction<Object, SocketAddress, SocketAddress> connect;
  private static volatile Function<String, InetAddress[]> resolve;
  private static volatile BiFunction<X509Certificate[], Object, Boolean> trust;

  private CachetteHook() {}

  @Override
  public Object apply(String method, Object[] arguments) {
    synchronized (CachetteHook.class) {
      switch (method) {
        case "claim":
          return claim(arguments);
        case "release":
          release(arguments[0]);
          return null;
        case "isWoven":
          return woven;
        case "markWoven":
          woven = true;
          return null;
        default:
          throw new IllegalArgumentException(method);
      }
    }
  }

  /** Takes the hook; answers the present owner instead where there is one, else null. */
  @SuppressWarnings("unchecked")
  private static Object claim(Object[] arguments) {
    if (owner != null) {
      return owner;
    }
    owner = arguments[0];
    trust = (BiFunction<X509Certificate[], Object, Boolean>) arguments[3];
    connect = (BiFunction<Object, SocketAddress, SocketAddress>) arguments[1];
    resolve = (Function<String, InetAddress[]>) arguments[2];
    return null;
  }

  /** Gives the hook back, if this is its owner. */
  private static void release(Object oldOwner) {
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
