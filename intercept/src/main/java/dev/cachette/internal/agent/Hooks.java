// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.agent;

import java.lang.instrument.Instrumentation;
import java.lang.instrument.UnmodifiableClassException;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * The hooks in this JVM. They are installed once and stay; without an owner they do nothing.
 *
 * <p>Loaded classes are retransformed, others are woven when they are loaded, which is cheapest.
 * The transformer stays registered, so that the hooks survive another agent that transforms these
 * classes later.
 */
final class Hooks {

  private static @Nullable HookHolder installed;

  private Hooks() {}

  /**
   * Installs the hooks, unless they are installed.
   *
   * @throws InterceptionUnavailable if this JVM does not allow it, or if its classes are unknown
   */
  static synchronized HookHolder install() {
    if (installed == null) {
      Instrumentation instrumentation = InstrumentationSource.find();
      HookHolder holder = HookHolder.define(instrumentation);
      if (!holder.isWoven()) {
        weave(instrumentation);
        holder.markWoven();
      }
      installed = holder;
    }
    return installed;
  }

  private static void weave(Instrumentation instrumentation) {
    Weaver weaver = new Weaver();
    instrumentation.addTransformer(weaver, true);
    try {
      Class<?>[] loaded = instrumentation.getAllLoadedClasses();
      instrumentation.retransformClasses(targets(instrumentation, loaded));
      for (Class<?> each : loaded) {
        NativeStacks.loaded(each);
      }
      for (WeavePoint point : WeavePoint.required()) {
        Class.forName(point.className().replace('/', '.'), false, null);
      }
      requireAllWoven(weaver);
    } catch (UnmodifiableClassException
        | ClassNotFoundException
        | InternalError
        | RuntimeException failed) {
      instrumentation.removeTransformer(weaver);
      throw failed instanceof InterceptionUnavailable known
          ? known
          : new InterceptionUnavailable("its hooks cannot be woven, " + failed, failed);
    }
  }

  private static Class<?>[] targets(Instrumentation instrumentation, Class<?>... loaded) {
    List<Class<?>> targets = new ArrayList<>();
    for (Class<?> type : loaded) {
      if (WeavePoint.mayBeIn(type.getClassLoader(), type.getName().replace('.', '/'))
          && instrumentation.isModifiableClass(type)) {
        targets.add(type);
      }
    }
    return targets.toArray(Class<?>[]::new);
  }

  /** Reports a JDK whose classes have changed, rather than letting its calls through. */
  private static void requireAllWoven(Weaver weaver) {
    if (!weaver.missing().isEmpty()) {
      throw new InterceptionUnavailable(
          "Java " + Runtime.version() + " is not as expected at " + weaver.missing(),
          weaver.failure().orElse(null));
    }
  }
}
