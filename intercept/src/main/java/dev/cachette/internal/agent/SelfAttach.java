package dev.cachette.internal.agent;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;

/**
 * Attaches the agent to this JVM. On Linux and macOS it uses the attach protocol directly; if that
 * fails, and on Windows, the JDK's {@code jcmd}, at twice the cost.
 */
final class SelfAttach {

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

  private static List<String> optionsInForce() {
    String commandLine =
        ProcessHandle.current().info().arguments().map(all -> String.join(" ", all)).orElse("");
    return List.of(
        commandLine,
        Optional.ofNullable(System.getenv("JAVA_TOOL_OPTIONS")).orElse(""),
        Optional.ofNullable(System.getenv("JDK_JAVA_OPTIONS")).orElse(""));
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
