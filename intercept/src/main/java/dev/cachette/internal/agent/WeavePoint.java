package dev.cachette.internal.agent;

import java.util.Arrays;
import java.util.Set;
import java.util.stream.Collectors;

/** The methods of the JDK that get a hook at their beginning: the same from 17 to 25. */
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

  /** In front of the JDK's caches of names, unlike what it calls. Every overload is hooked. */
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
      "([Ljava/security/cert/X509Certificate;Ljava/lang/String;Ljavax/net/ssl/SSLEngine;Z)V");

  /** What is asked at a point. */
  enum Hook {
    CONNECT,
    RESOLVE,
    TRUST
  }

  private static final String ANYTHING = ".*";

  /** All classes with a point in them, with slashes. */
  static final Set<String> CLASSES =
      Arrays.stream(values()).map(WeavePoint::className).collect(Collectors.toUnmodifiableSet());

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

  boolean isAt(String aClass, String aMethod, String aDescriptor) {
    return className.equals(aClass) && methodName.equals(aMethod) && describes(aDescriptor);
  }

  private boolean describes(String aDescriptor) {
    int gap = descriptor.indexOf(ANYTHING);
    return gap < 0
        ? descriptor.equals(aDescriptor)
        : aDescriptor.startsWith(descriptor.substring(0, gap))
            && aDescriptor.endsWith(descriptor.substring(gap + ANYTHING.length()));
  }

  /** {@code java.net.InetAddress.getAllByName0}. */
  @Override
  public String toString() {
    return className.replace('/', '.') + "." + methodName;
  }
}
