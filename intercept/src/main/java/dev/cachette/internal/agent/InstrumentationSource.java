package dev.cachette.internal.agent;

import java.lang.instrument.Instrumentation;
import java.util.List;
import java.util.Optional;

/**
 * Finds the JVM's {@link Instrumentation}: the one our agent was given at start, else one that a
 * tool beside us already holds (which costs nothing), else by attaching to ourselves.
 */
final class InstrumentationSource {

  /**
   * Static methods that give an Instrumentation, or throw or give null where there is none. They
   * are those that hold it: what these tools offer to others would attach, at ten times our cost.
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

    /** Asked of the system class loader, which is where agents live. */
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
