package dev.cachette.internal.agent;

import java.lang.instrument.Instrumentation;
import org.jspecify.annotations.Nullable;

/**
 * Where the JVM hands over its {@link Instrumentation}, with {@code -javaagent:} or attached.
 *
 * <p>Attached, this class is loaded by the system class loader from a jar that holds nothing else,
 * which need not be the loader that Cachette was loaded by. So it refers to no other class, and is
 * read by name.
 */
public final class Agent {

  private static volatile @Nullable Instrumentation instrumentation;

  private Agent() {}

  /** Called by the JVM before {@code main}, with {@code -javaagent:}. */
  public static void premain(String arguments, Instrumentation given) {
    instrumentation = given;
  }

  /** Called by the JVM when attached at run time. */
  public static void agentmain(String arguments, Instrumentation given) {
    instrumentation = given;
  }

  /** What the JVM handed over, or null if it has not. */
  public static @Nullable Instrumentation instrumentation() {
    return instrumentation;
  }
}
