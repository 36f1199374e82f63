// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.agent;

import java.io.IOException;
import java.lang.management.ManagementFactory;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * Attaches the agent to this JVM. On Linux and macOS it uses the attach protocol directly; if that
 * fails, and on Windows, the JDK's {@code jcmd}, at twice the cost.
 */
final class SelfAttach {

  private static final List<String> OF_OPTIONS =
      List.of("JAVA_TOOL_OPTIONS", "JDK_JAVA_OPTIONS", "_JAVA_OPTIONS");

  /** The system may cut a longer one. */
  private static final int LONG_COMMAND_LINE = 3_000;

  private SelfAttach() {}

  static void attach() {
    refuseWhereSwitchedOff();
    long pid = ProcessHandle.current().pid();
    try (AgentJar jar = AgentJar.get()) {
      Optional<IOException> inProcess = AttachProtocol.tryLoad(pid, jar.path());
      if (inProcess.isPresent()) {
        loadWithJcmd(pid, jar.path(), inProcess.get());
      }
    } catch (IOException failed) {
      throw new InterceptionUnavailable(
          "attaching its agent failed, " + failed.getMessage(), failed);
    }
  }

  /**
   * If attaching is disabled, the signal that starts the protocol would print a thread dump
   * instead.
   */
  private static void refuseWhereSwitchedOff() {
    for (String options : optionsInForce()) {
      if (options.contains("-XX:+DisableAttachMechanism")) {
        throw new InterceptionUnavailable("-XX:+DisableAttachMechanism forbids attaching", null);
      }
      if (options.contains("-XX:-EnableDynamicAgentLoading")) {
        throw new InterceptionUnavailable("-XX:-EnableDynamicAgentLoading forbids attaching", null);
      }
    }
  }

  /** Asking the JVM takes long, so it is asked only if the command line does not tell. */
  private static List<String> optionsInForce() {
    Optional<String[]> arguments = ProcessHandle.current().info().arguments();
    String commandLine = arguments.map(all -> String.join(" ", all)).orElse("");
    boolean isWhole =
        arguments.isPresent()
            && commandLine.length() < LONG_COMMAND_LINE
            && Stream.of(arguments.get()).noneMatch(argument -> argument.startsWith("@"));
    List<String> options = new ArrayList<>();
    options.add(commandLine);
    for (String variable : OF_OPTIONS) {
      options.add(Optional.ofNullable(System.getenv(variable)).orElse(""));
    }
    if (!isWhole) {
      options.addAll(ManagementFactory.getRuntimeMXBean().getInputArguments());
    }
    return options;
  }

  private static void loadWithJcmd(long pid, Path jar, IOException first) throws IOException {
    Path jcmd = Path.of(System.getProperty("java.home"), "bin", "jcmd");
    try {
      Process process =
          new ProcessBuilder(
                  jcmd.toString(), Long.toString(pid), "JVMTI.agent_load", jar.toString())
              .redirectErrorStream(true)
              .start();
      process.getOutputStream().close();
      String said = new String(process.getInputStream().readAllBytes());
      if (process.waitFor() != 0) {
        throw new IOException("jcmd said: " + said.strip());
      }
    } catch (IOException failed) {
      failed.addSuppressed(first);
      throw failed;
    } catch (InterruptedException interrupted) {
      Thread.currentThread().interrupt();
      throw new IOException("interrupted while attaching", interrupted);
    }
  }
}
