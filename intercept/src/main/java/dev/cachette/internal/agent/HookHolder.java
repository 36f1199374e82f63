// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.agent;

import java.io.IOException;
import java.lang.instrument.Instrumentation;
import java.lang.invoke.MethodHandles;
import java.net.InetAddress;
import java.net.SocketAddress;
import java.net.URI;
import java.security.cert.X509Certificate;
import java.time.Duration;
import java.util.Map;
import java.util.Set;
import java.util.function.BiFunction;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * Access to {@code java.net.CachetteHook}, the class that the woven code calls. It is defined once
 * per JVM; later callers, from any class loader, find it there.
 */
final class HookHolder {

  private static final String PACKAGE = "java.net.";
  private static final String NAME = PACKAGE + "CachetteHook";

  private static final Duration LONGEST = Duration.ofNanos(Long.MAX_VALUE);

  private final BiFunction<String, Object[], Object> control;

  private HookHolder(BiFunction<String, Object[], Object> control) {
    this.control = control;
  }

  static HookHolder define(Instrumentation instrumentation) {
    try {
      return new HookHolder(controlOf(Class.forName(NAME, false, null)));
    } catch (ClassNotFoundException first) {
      return new HookHolder(controlOf(defineNow(instrumentation)));
    }
  }

  /** Takes ownership of the hook; returns the current owner if there is one, else null. */
  @Nullable Object claim(
      Object owner,
      BiFunction<Object, SocketAddress, SocketAddress> connect,
      Function<String, InetAddress[]> resolve,
      BiFunction<X509Certificate[], Object, Boolean> trust,
      BiFunction<String, Object, Object> asked) {
    return control.apply("claim", new Object[] {owner, connect, resolve, trust, asked});
  }

  void release(Object owner) {
    control.apply("release", new Object[] {owner});
  }

  /** Returns the connections that were not redirected, with their addresses. */
  @SuppressWarnings("unchecked")
  Map<Object, SocketAddress> connections() {
    return (Map<Object, SocketAddress>) control.apply("connections", new Object[0]);
  }

  /** Shuts down both directions of a JDK socket. */
  void shutDown(Object socket) {
    control.apply("shutDown", new Object[] {socket});
  }

  /** From now on, this thread works for a test; for none if the number is 0. */
  void begin(long test) {
    control.apply("begin", new Object[] {test});
  }

  /** From now on, what this thread hands over to others is work for a test. */
  void handOver(long test) {
    control.apply("handOver", new Object[] {test});
  }

  /** A connection that this JVM has accepted from a port carries a call; none if it is 0. */
  void carries(int remotePort, long call) {
    control.apply("carries", new Object[] {remotePort, call});
  }

  /** A new request begins on the connection with this local port. */
  void answered(int port) {
    control.apply("answered", new Object[] {port});
  }

  /**
   * Nobody serves the connection from this port; runs an action when its client uses it. Returns
   * false if that cannot be told.
   */
  boolean leave(int port, Runnable end) {
    return (Boolean) control.apply("leave", new Object[] {port, end});
  }

  /** Returns true if such a connection is not used yet: from now on it is served. */
  boolean take(int port) {
    return (Boolean) control.apply("take", new Object[] {port});
  }

  /**
   * Notes how much time has passed for a call from this port; returns true if its client waits in a
   * blocking read.
   */
  boolean pass(int port, String method, URI uri, Duration time) {
    return (Boolean) control.apply("pass", new Object[] {port, method, uri, nanos(time)});
  }

  /**
   * Notes how much time has passed for an attempt to connect that nobody answers; returns true if
   * it times out now.
   */
  boolean passConnecting(Object socket, String host, int port, Duration time) {
    return (Boolean)
        control.apply("passConnecting", new Object[] {socket, host, port, nanos(time)});
  }

  /** A clock may be moved by more than the 292 years that fit. */
  private static long nanos(Duration time) {
    return time.isNegative() ? 0 : time.compareTo(LONGEST) > 0 ? Long.MAX_VALUE : time.toNanos();
  }

  /**
   * Returns who made the current request on a connection: the number of the test, how that is
   * known, the name of the thread, and the thread if it is alive; null if nothing is known.
   */
  Object @Nullable [] madeBy(int port) {
    return (Object[]) control.apply("madeBy", new Object[] {port});
  }

  /** Returns the same about an HTTP/2 stream, once. */
  Object @Nullable [] madeBy(int port, int stream) {
    return (Object[]) control.apply("streamMadeBy", new Object[] {port, stream});
  }

  /** Returns the same about this thread. */
  Object[] current() {
    return (Object[]) control.apply("current", new Object[0]);
  }

  /** Sets what decides about connections while there is no owner. */
  void guard(
      @Nullable BiFunction<Object, SocketAddress, SocketAddress> connect,
      @Nullable Function<String, InetAddress[]> resolve) {
    control.apply("guard", new Object[] {connect, resolve});
  }

  /** Returns where connections went while there was no owner. */
  @SuppressWarnings("unchecked")
  Set<SocketAddress> left() {
    return (Set<SocketAddress>) control.apply("left", new Object[0]);
  }

  boolean isWoven() {
    return (Boolean) control.apply("isWoven", new Object[0]);
  }

  void markWoven() {
    control.apply("markWoven", new Object[0]);
  }

  @SuppressWarnings("unchecked")
  private static BiFunction<String, Object[], Object> controlOf(Class<?> hook) {
    try {
      return (BiFunction<String, Object[], Object>) hook.getField("CONTROL").get(null);
    } catch (ReflectiveOperationException other) {
      throw new InterceptionUnavailable("another version of Cachette has defined " + NAME, other);
    }
  }

  private static Class<?> defineNow(Instrumentation instrumentation) {
    Module base = InetAddress.class.getModule();
    Module ours = HookHolder.class.getModule();
    instrumentation.redefineModule(
        base, Set.of(), Map.of(), Map.of("java.net", Set.of(ours)), Set.of(), Map.of());
    ModuleLayer.boot()
        .findModule("java.net.http")
        .ifPresent(
            client ->
                instrumentation.redefineModule(
                    client,
                    Set.of(),
                    Map.of(),
                    Map.of("jdk.internal.net.http", Set.of(base)),
                    Set.of(),
                    Map.of()));
    try {
      MethodHandles.Lookup lookup =
          MethodHandles.privateLookupIn(InetAddress.class, MethodHandles.lookup());
      for (byte[] each : HookClasses.read()) {
        lookup.defineClass(each);
      }
      return Class.forName(NAME, false, null);
    } catch (IOException | IllegalAccessException | ClassNotFoundException failed) {
      throw new InterceptionUnavailable("its hook cannot be defined", failed);
    }
  }
}
