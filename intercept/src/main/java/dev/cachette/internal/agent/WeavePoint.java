package dev.cachette.internal.agent;

import java.util.Arrays;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * The methods that get a hook at their beginning. Those of the JDK are the same from 17 to 25.
 * Those of Netty, which has transports and a resolver of its own, are found in every copy of it,
 * whatever package it was moved to; ours are not named like that.
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
      "([Ljava/security/cert/X509Certificate;Ljava/lang/String;Ljavax/net/ssl/SSLEngine;Z)V"),

  /** One point for all transports, native ones included. */
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
      "(Ljava/lang/String;L.*Promise;)L.*");

  /** What is asked at a point. */
  enum Hook {
    CONNECT,
    RESOLVE,
    TRUST,
    CONNECT_CHANNEL,
    RESOLVE_PROMISE,
    RESOLVE_PROMISE_OF_ALL
  }

  /** Without what stands before, which the build would relocate together with our own copy. */
  private static final String NETTY = "netty/";

  private static final String OURS = "dev/cachette/";

  private static final String ANYTHING = ".*";

  /** All classes of the JDK with a point in them, with slashes. */
  static final Set<String> OF_THE_JDK =
      Arrays.stream(values())
          .filter(WeavePoint::isOfTheJdk)
          .map(WeavePoint::className)
          .collect(Collectors.toUnmodifiableSet());

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

  /** Whether it must be there; Netty need not. */
  boolean isOfTheJdk() {
    return !className.startsWith(NETTY);
  }

  /** Whether a class, with slashes, may have a point in it. */
  static boolean mayBeIn(boolean ofTheJdk, String aClass) {
    return ofTheJdk
        ? OF_THE_JDK.contains(aClass)
        : aClass.endsWith(NETTY_CONNECT.className) || aClass.endsWith(NETTY_NAME_LOOK_UP.className);
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

  /** {@code java.net.InetAddress.getAllByName0}. */
  @Override
  public String toString() {
    return className.replace('/', '.') + "." + methodName;
  }
}
