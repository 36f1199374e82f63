// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import java.io.File;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;

/** Runs a main class in a JVM of its own. */
final class Jvm {

  private Jvm() {}

  /** Returns the command line of a JVM with the classpath of this one. */
  static List<String> command(List<String> options, Class<?> main, String... arguments) {
    List<String> command = new ArrayList<>();
    command.add(Path.of(System.getProperty("java.home"), "bin", "java").toString());
    // It ends before more would pay.
    command.add("-XX:TieredStopAtLevel=1");
    command.add("-XX:+EnableDynamicAgentLoading");
    command.addAll(options);
    command.add("-cp");
    command.add(System.getProperty("java.class.path", "").replace("::", File.pathSeparator));
    command.add(main.getName());
    command.addAll(List.of(arguments));
    return command;
  }

  /** Returns what a command says; it must end well, and in time. */
  static String run(List<String> command) throws IOException, InterruptedException {
    Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
    String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    if (!process.waitFor(1, TimeUnit.MINUTES) || process.exitValue() != 0) {
      process.destroyForcibly();
      throw new AssertionError("ended with " + process.exitValue() + ":\n" + said);
    }
    return said;
  }
}
