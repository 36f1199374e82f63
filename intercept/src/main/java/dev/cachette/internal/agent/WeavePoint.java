// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.agent;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * The methods that get a hook at their beginning. Those of the JDK are the same from 17 to 25.
 * Those of Netty, which has its own transports and resolver, are found in every copy, whatever its
 * package; Cachette's own copy has other names.
 */
enum WeavePoint {
  SOCKET(Hook.CONNECT, "sun/nio/ch/NioSocketImpl", "connect", "(Ljava/net/SocketAddress;I)V"),

  /** Java 17 has it for -Djdk.net.usePlainSocketImpl. */
  OLD_SOCKET(
      Hook.CONNECT, "java/net/AbstractPlainSocketImpl", "connect", "(Ljava/net/SocketAddress;I)V"),

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
      "(Ljava/lang/String;*)[Ljava/net/InetAddress;"),

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

  /** Of HTTP/3, which is refused: a client would wait for its timeout. */
  DATAGRAM(
      Hook.DATAGRAM,
      "sun/nio/ch/DatagramChannelImpl",
      "send",
      "(Ljava/nio/ByteBuffer;Ljava/net/SocketAddress;)I"),

  /** Netty does not report that its datagrams fail. */
  NETTY_HTTP_3(Hook.HTTP_3, "codec/quic/QuicChannelBootstrap", "connect", "(L*Promise;)L*"),

  /** One method for all transports, including native ones. */
  NETTY_CONNECT(
      Hook.CONNECT_CHANNEL,
      "netty/channel/DefaultChannelPipeline$HeadContext",
      "connect",
      "(L*ChannelPromise;)V"),

  NETTY_NAME_LOOK_UP(
      Hook.RESOLVE_PROMISE,
      "netty/resolver/SimpleNameResolver",
      "resolve",
      "(Ljava/lang/String;L*Promise;)L*"),

  NETTY_NAME_LOOK_UP_OF_ALL(
      Hook.RESOLVE_PROMISE_OF_ALL,
      "netty/resolver/SimpleNameResolver",
      "resolveAll",
      "(Ljava/lang/String;L*Promise;)L*"),

  /** Behind all look-ups of records, such as Armeria's. */
  NETTY_DNS_QUERY(
      Hook.DNS_QUERY, "netty/resolver/dns/DnsNameResolver", "doQuery", "(*DnsQuestion;*)L*"),

  /** The same before Netty 4.1.101. */
  NETTY_DNS_QUERY_OF_OLD(
      Hook.DNS_QUERY, "netty/resolver/dns/DnsNameResolver", "query0", "(*DnsQuestion;*)L*"),

  /** The path alone; its caller compares the names, as that of the next one. */
  TRUST_OF_BOUNCY_CASTLE(
      Hook.TRUST_OF_BOUNCY_CASTLE,
      "jsse/provider/ProvX509TrustManager",
      "validateChain",
      "([Ljava/security/cert/X509Certificate;Ljava/lang/String;L*TransportData;Z)"
          + "[Ljava/security/cert/X509Certificate;"),

  TRUST_OF_CONSCRYPT(
      Hook.TRUST_OF_CONSCRYPT,
      "conscrypt/TrustManagerImpl",
      "checkTrusted",
      "([Ljava/security/cert/X509Certificate;[B[BLjava/lang/String;Ljava/lang/String;Z)"
          + "Ljava/util/List;");

  /** The kind of hook. */
  enum Hook {
    CONNECT,
    RESOLVE,
    TRUST,
    TRUST_OF_BOUNCY_CASTLE,
    TRUST_OF_CONSCRYPT,
    CONNECT_CHANNEL,
    RESOLVE_PROMISE,
    RESOLVE_PROMISE_OF_ALL,
    DATAGRAM,
    HTTP_3,
    DNS_QUERY
  }

  /** Of {@code java.net.http}, for example. */
  private static final ClassLoader PLATFORM = ClassLoader.getPlatformClassLoader();

  private static final String OURS = "dev/cachette/";

  /** Stands for anything in a descriptor. */
  private static final char ANYTHING = '*';

  private static final Set<String> OF_THE_JDK = new HashSet<>();

  /** The ends of the names of classes of libraries, with slashes. */
  private static final Set<String> OF_LIBRARIES = new LinkedHashSet<>();

  // Loops here and below: in a JVM that has just started, a stream takes milliseconds.
  static {
    for (WeavePoint point : values()) {
      (point.isOfTheJdk() ? OF_THE_JDK : OF_LIBRARIES).add(point.className);
    }
  }

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

  /** Returns those that must exist. */
  static Set<WeavePoint> required() {
    Set<WeavePoint> required = EnumSet.noneOf(WeavePoint.class);
    for (WeavePoint point : values()) {
      if (point.isOfTheJdk() && point != OLD_SOCKET && point != DATAGRAM) {
        required.add(point);
      }
    }
    return required;
  }

  private boolean isOfTheJdk() {
    return className.startsWith("java/") || className.startsWith("sun/");
  }

  /** Returns true if a class, with slashes, may contain it. */
  static boolean mayBeIn(@Nullable ClassLoader loader, String aClass) {
    return loader == null || loader == PLATFORM
        ? OF_THE_JDK.contains(aClass) || ContextPoint.isIn(aClass)
        : isOfLibrary(aClass) || ContextPoint.isInLibrary(aClass);
  }

  private static boolean isOfLibrary(String aClass) {
    for (String end : OF_LIBRARIES) {
      if (aClass.endsWith(end)) {
        return true;
      }
    }
    return false;
  }

  /** Returns those in a class, with slashes. */
  static List<WeavePoint> in(String aClass) {
    List<WeavePoint> points = new ArrayList<>();
    for (WeavePoint point : values()) {
      if (point.isOfTheJdk() ? point.className.equals(aClass) : aClass.endsWith(point.className)) {
        points.add(point);
      }
    }
    return points;
  }

  boolean isAt(String aMethod, String aDescriptor) {
    return methodName.equals(aMethod) && describes(aDescriptor);
  }

  private boolean describes(String aDescriptor) {
    int from = 0;
    int begin = 0;
    for (int end = descriptor.indexOf(ANYTHING);
        end >= 0;
        end = descriptor.indexOf(ANYTHING, begin)) {
      String part = descriptor.substring(begin, end);
      int at = aDescriptor.indexOf(part, from);
      if (at < 0 || begin == 0 && at > 0) {
        return false;
      }
      from = at + part.length();
      begin = end + 1;
    }
    String last = descriptor.substring(begin);
    return begin == 0
        ? aDescriptor.equals(descriptor)
        : aDescriptor.length() - last.length() >= from && aDescriptor.endsWith(last);
  }

  /** Returns {@code java.net.InetAddress.getAllByName0}. */
  @Override
  public String toString() {
    return className.replace('/', '.') + "." + methodName;
  }
}
