// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.agent;

import java.lang.instrument.Instrumentation;
import org.jspecify.annotations.Nullable;

/**
 * The Java agent: receives {@link Instrumentation} from the JVM, with {@code -javaagent:} or
 * attached.
 *
 * <p>When attached, the system class loader loads this class from a jar without other classes;
 * Cachette itself may be in another loader. So it refers to no other class, and is accessed by
 * name.
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

  /** Returns the instrumentation, or null if the JVM has not passed one. */
  public static @Nullable Instrumentation instrumentation() {
    return instrumentation;
  }
}
