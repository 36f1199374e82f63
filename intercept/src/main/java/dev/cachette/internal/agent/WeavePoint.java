package dev.cachette.internal.agent;

import java.util.Arrays;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * The methods that get a hook at their beginning. Those of the JDK are the same from 17 to 25.
 * Those of Netty, which has its own transports and resolver, are found in every copy, whatever its
 * package; Cachette's own copy has other names.
 */
enum WeavePoint {
  SOCKET(Hook.CONNECT, "sun/nio/ch/NioSocketImpl", "connect", "(Ljava/net/SocketAddress;I)V"),

  CHANNEL(Hook.CONNECT, "sun/nio/ch/SocketChannelImpl", "connect", "(Ljava/net/SocketAddress;)Z"),

  BLOCKING_CHANNEL(
      Hook.CONNECT,
      "sun/nio/ch/SocketChannelImpl",
      "blockingConnect",
      "(Ljava/net/SocketAddress;J)V"),

  ASYNCHRONOUS_CHANNEL_FUTURE(
      Hook.CONNECT,
      "sun/nio/ch/AsynchronousSocketChannelImpl",
      "connect",
      "(Ljava/net/SocketAddress;)Ljava/util/concurrent/Future;"),

  ASYNCHRONOUS_CHANNEL_HANDLER(
      Hook.CONNECT,
      "sun/nio/ch/AsynchronousSocketChannelImpl",
      "connect",
      "(Ljava/net/SocketAddress;Ljava/lang/Object;Ljava/nio/channels/CompletionHandler;)V"),

  /** Before the JDK's name caches, unlike the method that it calls. All overloads are hooked. */
  NAME_LOOK_UP(
      Hook.RESOLVE,
      "java/net/InetAddress",
      "getAllByName0",
      "(Ljava/lang/String;.*)[Ljava/net/InetAddress;"),

  TRUST_OF_SOCKET(
      Hook.TRUST,
      "sun/security/ssl/X509TrustManagerImpl",
      "checkTrusted",
      "([Ljava/security/cert/X509Certificate;Ljava/lang/String;Ljava/net/Socket;Z)V"),

  TRUST_OF_ENGINE(
      Hook.TRUST,
      "sun/security/ssl/X509TrustManagerImpl",
      "checkTrusted",
      "([Ljava/security/cert/X509Certificate;Ljava/lang/String;Ljavax/net/ssl/SSLEngine;Z)V"),

  /** One method for all transports, including native ones. */
  NETTY_CONNECT(
      Hook.CONNECT_CHANNEL,
      "netty/channel/DefaultChannelPipeline$HeadContext",
      "connect",
      "(L.*ChannelPromise;)V"),

  NETTY_NAME_LOOK_UP(
      Hook.RESOLVE_PROMISE,
      "netty/resolver/SimpleNameResolver",
      "resolve",
      "(Ljava/lang/String;L.*Promise;)L.*"),

  NETTY_NAME_LOOK_UP_OF_ALL(
      Hook.RESOLVE_PROMISE_OF_ALL,
      "netty/resolver/SimpleNameResolver",
      "resolveAll",
      "(Ljava/lang/String;L.*Promise;)L.*"),

  TRUST_OF_BOUNCY_CASTLE(
      Hook.TRUST_OF_SERVER,
      "jsse/provider/ProvX509TrustManager",
      "checkTrusted",
      "([Ljava/security/cert/X509Certificate;Ljava/lang/String;L.*TransportData;Z)V"),

  TRUST_OF_CONSCRYPT(
      Hook.TRUST_WITH_CHAIN,
      "conscrypt/TrustManagerImpl",
      "checkTrusted",
      "([Ljava/security/cert/X509Certificate;Ljava/lang/String;Ljavax/net/ssl/SSLSession;"
          + "Ljavax/net/ssl/SSLParameters;Z)Ljava/util/List;");

  /** The kind of hook. */
  enum Hook {
    CONNECT,
    RESOLVE,
    TRUST,
    /** With a flag for a server instead of a client. */
    TRUST_OF_SERVER,
    /** With the chain as result. */
    TRUST_WITH_CHAIN,
    CONNECT_CHANNEL,
    RESOLVE_PROMISE,
    RESOLVE_PROMISE_OF_ALL
  }

  /** Of {@code java.net.http}, for example. */
  private static final ClassLoader PLATFORM = ClassLoader.getPlatformClassLoader();

  private static final String OURS = "dev/cachette/";

  private static final String ANYTHING = ".*";

  /** Returns the JDK classes to weave, with slashes. */
  static final Set<String> OF_THE_JDK =
      Arrays.stream(values())
          .filter(WeavePoint::isOfTheJdk)
          .map(WeavePoint::className)
          .collect(Collectors.toUnmodifiableSet());

  /** Returns the ends of the names of classes of libraries, with slashes. */
  private static final String[] OF_LIBRARIES =
      Arrays.stream(values())
          .filter(point -> !point.isOfTheJdk())
          .map(WeavePoint::className)
          .distinct()
          .toArray(String[]::new);

  private final Hook hook;
  private final String className;
  private final String methodName;
  private final String descriptor;

  WeavePoint(Hook hook, String className, String methodName, String descriptor) {
    this.hook = hook;
    this.className = className;
    this.methodName = methodName;
    this.descriptor = descriptor;
  }

  Hook hook() {
    return hook;
  }

  String className() {
    return className;
  }

  /** Returns true if it must exist; those of libraries need not. */
  boolean isOfTheJdk() {
    return hook == Hook.CONNECT || hook == Hook.RESOLVE || hook == Hook.TRUST;
  }

  /** Returns true if a class, with slashes, may contain it. */
  static boolean mayBeIn(@Nullable ClassLoader loader, String aClass) {
    return loader == null || loader == PLATFORM
        ? OF_THE_JDK.contains(aClass) || ContextPoint.CLASSES.contains(aClass)
        : isOfLibrary(aClass);
  }

  /** A loop: to link a lambda loads classes, for each of which this is called. */
  private static boolean isOfLibrary(String aClass) {
    for (String end : OF_LIBRARIES) {
      if (aClass.endsWith(end)) {
        return true;
      }
    }
    return false;
  }

  boolean isAt(String aClass, String aMethod, String aDescriptor) {
    return (isOfTheJdk() ? className.equals(aClass) : aClass.endsWith(className))
        && methodName.equals(aMethod)
        && describes(aDescriptor);
  }

  private boolean describes(String aDescriptor) {
    String regex =
        Arrays.stream(descriptor.split(Pattern.quote(ANYTHING), -1))
            .map(Pattern::quote)
            .collect(Collectors.joining(ANYTHING));
    return aDescriptor.matches(regex);
  }

  /** Returns {@code java.net.InetAddress.getAllByName0}. */
  @Override
  public String toString() {
    return className.replace('/', '.') + "." + methodName;
  }
}
