package dev.cachette.internal.agent;

import java.io.IOException;
import java.io.InputStream;
import java.lang.instrument.Instrumentation;
import java.lang.invoke.MethodHandles;
import java.net.InetAddress;
import java.net.SocketAddress;
import java.security.cert.X509Certificate;
import java.util.Map;
import java.util.Set;
import java.util.function.BiFunction;
import java.util.function.Function;

/**
 * Our handle on {@code java.net.CachetteHook}, the class that the woven code asks. It is defined
 * into the JDK once a JVM; whoever comes later, from whatever class loader, finds it there.
 */
final class HookHolder {

  private static final String NAME = "java.net.CachetteHook";
  private static final String RESOURCE = "hook/java/net/CachetteHook.class";

  private final Class<?> hook;

  private HookHolder(Class<?> hook) {
    this.hook = hook;
  }

  static HookHolder define(Instrumentation instrumentation) {
    try {
      return new HookHolder(Class.forName(NAME, false, null));
    } catch (ClassNotFoundException first) {
      return new HookHolder(defineNow(instrumentation));
    }
  }

  /** Takes the hook; answers its present owner where there is one, else null. */
  Object claim(
      Object owner,
      BiFunction<Object, SocketAddress, SocketAddress> connect,
      Function<String, InetAddress[]> resolve,
      BiFunction<X509Certificate[], Object, Boolean> trust) {
    return call(
        "claim",
        new Class<?>[] {Object.class, BiFunction.class, Function.class, BiFunction.class},
        owner,
        connect,
        resolve,
        trust);
  }

  void release(Object owner) {
    call("release", new Class<?>[] {Object.class}, owner);
  }

  boolean isWoven() {
    return (Boolean) call("isWoven", new Class<?>[0]);
  }

  void markWoven() {
    call("markWoven", new Class<?>[0]);
  }

  private Object call(String method, Class<?>[] types, Object... arguments) {
    try {
      return hook.getMethod(method, types).invoke(null, arguments);
    } catch (ReflectiveOperationException impossible) {
      throw new InterceptionUnavailable(
          "another version of Cachette has defined " + NAME, impossible);
    }
  }

  private static Class<?> defineNow(Instrumentation instrumentation) {
    Module base = InetAddress.class.getModule();
    Module ours = HookHolder.class.getModule();
    instrumentation.redefineModule(
        base, Set.of(), Map.of(), Map.of("java.net", Set.of(ours)), Set.of(), Map.of());
    try (InputStream bytes = HookHolder.class.getResourceAsStream(RESOURCE)) {
      return MethodHandles.privateLookupIn(InetAddress.class, MethodHandles.lookup())
          .defineClass(bytes.readAllBytes());
    } catch (IOException | IllegalAccessException failed) {
      throw new InterceptionUnavailable("its hook cannot be defined", failed);
    }
  }
}
