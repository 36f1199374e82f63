// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.agent;

import java.lang.instrument.Instrumentation;
import java.util.List;
import java.util.Optional;

/**
 * Finds the JVM's {@link Instrumentation}: from Cachette's agent, else from a tool that already has
 * one (which costs nothing), else by attaching.
 */
final class InstrumentationSource {

  /**
   * Static methods that return an Instrumentation, or throw or return null without one. They only
   * return an existing one: the public methods of these tools would attach, at ten times the cost.
   */
  private static final List<Accessor> HELD_BY_OTHERS =
      List.of(
          new Accessor("org.mockito.internal.PremainAttach", "getInstrumentation"),
          new Accessor("net.bytebuddy.agent.Installer", "getInstrumentation"));

  private static final Accessor OUR_AGENT = new Accessor(Agent.class.getName(), "instrumentation");

  private InstrumentationSource() {}

  static Instrumentation find() {
    return OUR_AGENT
        .read()
        .or(InstrumentationSource::heldByOthers)
        .orElseGet(InstrumentationSource::attach);
  }

  private static Optional<Instrumentation> heldByOthers() {
    return HELD_BY_OTHERS.stream().map(Accessor::read).flatMap(Optional::stream).findFirst();
  }

  private static Instrumentation attach() {
    SelfAttach.attach();
    return OUR_AGENT
        .read()
        .orElseThrow(
            () -> new InterceptionUnavailable("the agent was attached but did not start", null));
  }

  private record Accessor(String className, String method) {

    /** Called on the system class loader, where agents are. */
    Optional<Instrumentation> read() {
      try {
        Object given =
            ClassLoader.getSystemClassLoader().loadClass(className).getMethod(method).invoke(null);
        return Optional.ofNullable((Instrumentation) given)
            .filter(Instrumentation::isRetransformClassesSupported);
      } catch (ReflectiveOperationException | LinkageError absent) {
        return Optional.empty();
      }
    }
  }
}
