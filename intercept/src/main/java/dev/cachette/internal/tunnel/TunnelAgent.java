// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.tunnel;

import dev.cachette.internal.agent.Agent;
import java.io.File;
import java.io.PrintStream;
import java.lang.instrument.Instrumentation;
import java.net.URL;
import java.net.URLClassLoader;

/**
 * The agent in a JVM whose calls are recorded. It loads everything else in a class loader of its
 * own, so that the application's libraries do not meet Cachette's.
 *
 * <p>This class may be loaded by any JVM since Java 8: an older one must say so, and run on. So it
 * uses nothing newer, not even concatenated strings, and {@link TunnelJar} lowers the version of
 * its class file.
 */
public final class TunnelAgent {

  private static final double OLDEST = 17;
  private static final PrintStream REMARKS = System.err;

  private TunnelAgent() {}

  /**
   * Called by the JVM before {@code main}.
   *
   * @param arguments as {@link TunnelJar} writes them, separated by {@code |}: the jar of Cachette,
   *     and those of {@link TunnelledJvm#begin}
   */
  public static void premain(String arguments, Instrumentation given) {
    String version = System.getProperty("java.specification.version");
    if (Double.parseDouble(version) < OLDEST) {
      remark("Java ".concat(version).concat(" is too old; calls are recorded by proxy only."));
      return;
    }
    Agent.premain(arguments, given);
    try {
      String[] parts = arguments.split("\\|");
      URL jar = new File(parts[0]).toURI().toURL();
      ClassLoader ours =
          new URLClassLoader(new URL[] {jar}, ClassLoader.getSystemClassLoader().getParent());
      ours.loadClass("dev.cachette.internal.tunnel.TunnelledJvm")
          .getMethod("begin", String[].class)
          .invoke(null, (Object) parts);
    } catch (ReflectiveOperationException | java.io.IOException | RuntimeException failed) {
      Throwable cause = failed.getCause() == null ? failed : failed.getCause();
      remark("calls of this JVM are recorded by proxy only: ".concat(cause.toString()));
    }
  }

  private static void remark(String text) {
    REMARKS.println("cachette: ".concat(text));
  }
}
