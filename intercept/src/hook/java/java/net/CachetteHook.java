package java.net;

import java.io.FileDescriptor;
import java.io.IOException;
import java.lang.reflect.Field;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Method;
import java.security.cert.X509Certificate;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;
import java.util.WeakHashMap;
import java.util.function.BiFunction;
import java.util.function.Function;

/**
 * Called by the hooks in JDK classes. It is in {@code java.net} so that every class loader finds it,
 * and does nothing while it has no owner.
 *
 * <p>Other code cannot be compiled against it, so its owner calls it through {@link #CONTROL}, an
 * interface of the JDK: reflection would generate a class loader per method after some calls.
 */
public final class CachetteHook implements BiFunction<String, Object[], Object> {

  /** Takes the name of a method below, and its arguments. */
  public static final BiFunction<String, Object[], Object> CONTROL = new CachetteHook();

  /** The owner; its toString names it and where it was opened. Guarded by this class. */
  private static Object owner;

  /** True once the hooks are installed in the JDK classes. Guarded by this class. */
  private static boolean woven;

  private static volatile BiFunction<Object, SocketAddress, SocketAddress> connect;
  private static volatile Function<String, InetAddress[]> resolve;
  private static volatile BiFunction<X509Certificate[], Object, Boolean> trust;

  /** Takes a question, {@code intercepts} or {@code http3}, and a host or an address. */
  private static volatile BiFunction<String, Object, Object> asked;

  /** They decide while there is no owner. */
  private static volatile BiFunction<Object, SocketAddress, SocketAddress> guardedConnect;

  private static volatile Function<String, InetAddress[]> guardedResolve;

  /** Where connections went while there was no owner, each once. Guarded by itself. */
  private static final Set<SocketAddress> LEFT = new LinkedHashSet<>();

  private static final int HTTPS_PORT = 443;

  /** More are not remembered. */
  private static final int MOST_LEFT = 200;

  /** Connections that were not redirected, with their addresses. Guarded by itself. */
  private static final Map<Object, SocketAddress> CONNECTIONS = new WeakHashMap<>();

  private CachetteHook() {}

  @Override
  public Object apply(String method, Object[] arguments) {
    switch (method) {
      case "answered":
        CachetteContext.answered((Integer) arguments[0]);
        return null;
      case "madeBy":
        return madeBy(CachetteContext.at((Integer) arguments[0]));
      case "streamMadeBy":
        return madeBy(CachetteStreams.take((Integer) arguments[0], (Integer) arguments[1]));
      case "pass":
        return CachetteTimers.pass(
            (Integer) arguments[0],
            (String) arguments[1],
            (URI) arguments[2],
            (Long) arguments[3]);
      case "passConnecting":
        return CachetteConnecting.pass(
            arguments[0], (String) arguments[1], (Integer) arguments[2], (Long) arguments[3]);
      case "leave":
        return CachetteUnserved.leave((Integer) arguments[0], (Runnable) arguments[1]);
      case "take":
        return CachetteUnserved.take((Integer) arguments[0]);
      case "begin":
        CachetteContext.begin((Long) arguments[0]);
        return null;
      case "handOver":
        CachetteIncoming.follow();
        CachetteContext.handOver((Long) arguments[0]);
        return null;
      case "carries":
        CachetteIncoming.carries((Integer) arguments[0], (Long) arguments[1]);
        return null;
      case "current":
        return madeBy(CachetteContext.current());
      default:
        return exclusively(method, arguments);
    }
  }

  /** Returns test, how that is known, and the thread with its name; null if nothing is known. */
  private static Object[] madeBy(CachetteMark mark) {
    return mark == null
        ? null
        : new Object[] {mark.test, mark.how, mark.threadName, mark.thread.get()};
  }

  private static Object exclusively(String method, Object[] arguments) {
    synchronized (CachetteHook.class) {
      switch (method) {
        case "claim":
          return claim(arguments);
        case "release":
          release(arguments[0]);
          return null;
        case "connections":
          synchronized (CONNECTIONS) {
            return new HashMap<>(CONNECTIONS);
          }
        case "shutDown":
          shutDown(arguments[0]);
          return null;
        case "guard":
          guard(arguments);
          return null;
        case "left":
          synchronized (LEFT) {
            return new LinkedHashSet<>(LEFT);
          }
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

  /** Sets the owner; returns the present one if there is one, otherwise null. */
  @SuppressWarnings("unchecked")
  private static Object claim(Object[] arguments) {
    if (owner != null) {
      return owner;
    }
    owner = arguments[0];
    trust = (BiFunction<X509Certificate[], Object, Boolean>) arguments[3];
    connect = (BiFunction<Object, SocketAddress, SocketAddress>) arguments[1];
    resolve = (Function<String, InetAddress[]>) arguments[2];
    asked = (BiFunction<String, Object, Object>) arguments[4];
    CachetteContext.follow(true);
    return null;
  }

  /** Sets what decides without an owner; nothing does if it is null. */
  @SuppressWarnings("unchecked")
  private static void guard(Object[] arguments) {
    guardedConnect = (BiFunction<Object, SocketAddress, SocketAddress>) arguments[0];
    guardedResolve = (Function<String, InetAddress[]>) arguments[1];
    CachetteContext.follow(owner != null || guardedConnect != null);
  }

  /** Removes the owner, if it is this one. */
  private static void release(Object oldOwner) {
    if (owner == oldOwner) {
      owner = null;
      CachetteContext.follow(guardedConnect != null);
      resolve = null;
      connect = null;
      trust = null;
      asked = null;
    }
  }

  /** Returns the address that a socket connects to. */
  public static SocketAddress connect(Object socket, SocketAddress remote) {
    if (remote == null) {
      return null;
    }
    BiFunction<Object, SocketAddress, SocketAddress> owners = connect;
    BiFunction<Object, SocketAddress, SocketAddress> handler =
        owners == null ? guardedConnect : owners;
    if (handler == null) {
      left(remote);
    }
    SocketAddress wanted = handler == null ? remote : handler.apply(socket, remote);
    if (wanted == remote) {
      synchronized (CONNECTIONS) {
        CONNECTIONS.put(socket, remote);
      }
    }
    return wanted;
  }

  /** A socket has tried to connect, and is connected if that is completed. */
  public static void connected(Object socket, boolean completed) {
    BiFunction<String, Object, Object> owners = asked;
    if (completed && owners != null) {
      owners.apply("connected", socket);
    }
  }

  private static void left(SocketAddress remote) {
    synchronized (LEFT) {
      if (LEFT.size() < MOST_LEFT) {
        LEFT.add(remote);
      }
    }
  }

  /** Returns the addresses of a host, or null to let the JDK find them. */
  public static InetAddress[] resolve(String host) {
    Function<String, InetAddress[]> owners = resolve;
    Function<String, InetAddress[]> handler = owners == null ? guardedResolve : owners;
    return handler == null || host == null ? null : handler.apply(host);
  }

  /** Like {@link #resolve}, but returns the exception instead of throwing it. */
  public static Object resolution(String host) {
    try {
      return resolve(host);
    } catch (Throwable unknown) {
      return unknown;
    }
  }

  /** Returns true if the owner intercepts calls to a host. */
  static boolean intercepts(String host) {
    BiFunction<String, Object, Object> owners = asked;
    return owners != null && (Boolean) owners.apply("intercepts", host);
  }

  /** Returns the exception that HTTP/3 to an address fails with, or null. */
  public static Throwable http3(SocketAddress remote) {
    BiFunction<String, Object, Object> owners = asked;
    return owners == null ? null : (Throwable) owners.apply("http3", remote);
  }

  /** Throws the exception that a datagram to an address fails with, if it is one of HTTP/3. */
  public static void datagram(SocketAddress remote) throws IOException {
    if (remote instanceof InetSocketAddress address
        && address.getPort() == HTTPS_PORT
        && http3(remote) instanceof IOException refused) {
      throw refused;
    }
  }

  /** Returns the response to a DNS query, the exception it fails with, or null to send it. */
  public static Object dnsAnswer(Object question) {
    return CachetteDns.answer(question);
  }

  /**
   * Shuts down both directions of a socket, whose owner sees the other side disconnect. Does nothing
   * if it is closed already.
   */
  static void shutDown(Object socket) {
    try {
      FileDescriptor descriptor = descriptorOf(socket);
      if (descriptor != null && descriptor.valid()) {
        Method shutdown =
            Class.forName("sun.nio.ch.Net")
                .getDeclaredMethod("shutdown", FileDescriptor.class, int.class);
        shutdown.setAccessible(true);
        shutdown.invoke(null, descriptor, 2);
      }
    } catch (InvocationTargetException closedAlready) {
      // That was the purpose.
    } catch (ReflectiveOperationException other) {
      throw new IllegalStateException("this JDK ends no sockets as others do", other);
    }
  }

  private static FileDescriptor descriptorOf(Object socket) throws ReflectiveOperationException {
    if (socket instanceof SocketImpl plain) {
      return plain.getFileDescriptor();
    }
    if (socket instanceof sun.nio.ch.SelChImpl channel) {
      return channel.getFD();
    }
    for (Class<?> type = socket.getClass(); type != null; type = type.getSuperclass()) {
      for (Field field : type.getDeclaredFields()) {
        if (field.getType() == FileDescriptor.class && field.getName().equals("fd")) {
          field.setAccessible(true);
          return (FileDescriptor) field.get(socket);
        }
      }
    }
    return null;
  }

  /** Returns true if a server's chain is trusted without asking the JDK. */
  public static boolean trusts(X509Certificate[] chain, Object connection, boolean ofClient) {
    BiFunction<X509Certificate[], Object, Boolean> handler = trust;
    return handler != null && !ofClient && chain != null && handler.apply(chain, connection);
  }
}
