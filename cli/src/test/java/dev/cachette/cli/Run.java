// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;

/**
 * The tool in a process of its own, as its users run it.
 *
 * @param code its exit code
 * @param out what it said on standard output
 * @param err what it said on standard error
 */
record Run(int code, String out, String err) {

  private static final Path JAR = Path.of("target", "cachette-cli.jar").toAbsolutePath();

  /** Runs it to its end. */
  static Run of(String... arguments) throws Exception {
    return in(Path.of(""), arguments);
  }

  /** Runs it to its end in a folder. */
  static Run in(Path folder, String... arguments) throws Exception {
    Path out = Files.createTempFile("cachette", ".out");
    Path err = Files.createTempFile("cachette", ".err");
    try {
      Process process =
          builder(arguments)
              .directory(folder.toAbsolutePath().toFile())
              .redirectOutput(out.toFile())
              .redirectError(err.toFile())
              .start();
      if (!process.waitFor(60, TimeUnit.SECONDS)) {
        process.destroyForcibly();
        throw new AssertionError("it does not end: " + List.of(arguments));
      }
      return new Run(process.exitValue(), Files.readString(out), Files.readString(err));
    } finally {
      Files.delete(out);
      Files.delete(err);
    }
  }

  static ProcessBuilder builder(String... arguments) {
    List<String> command = new ArrayList<>();
    command.add(Path.of(System.getProperty("java.home"), "bin", "java").toString());
    command.addAll(List.of("-XX:+UseSerialGC", "-XX:TieredStopAtLevel=1"));
    command.addAll(List.of("-XX:SharedArchiveFile=" + Archive.FILE, "-Xlog:disable"));
    command.addAll(List.of("-jar", JAR.toString()));
    command.addAll(List.of(arguments));
    return new ProcessBuilder(command);
  }

  /**
   * The classes of the tool as a JVM keeps them, as the launcher has them: it starts twice as fast.
   */
  private static final class Archive {

    private static final Path FILE = Path.of("target", "tests.jsa").toAbsolutePath();

    static {
      try {
        Files.deleteIfExists(FILE);
        String java = Path.of(System.getProperty("java.home"), "bin", "java").toString();
        int code =
            new ProcessBuilder(
                    java,
                    "-XX:+UseSerialGC",
                    "-XX:ArchiveClassesAtExit=" + FILE,
                    "-Xlog:disable",
                    "-jar",
                    JAR.toString(),
                    "check",
                    "../examples/src/test/stubs/harbour.stubs.yaml")
                .redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .start()
                .waitFor();
        if (code != 0 || !Files.exists(FILE)) {
          throw new IllegalStateException("no archive of classes: exit code " + code);
        }
      } catch (IOException | InterruptedException failed) {
        throw new IllegalStateException("no archive of classes", failed);
      }
    }
  }

  /** One that goes on until it is stopped, whose messages can be waited for. */
  static final class Going implements AutoCloseable {

    private final Process process;
    private final BufferedReader messages;
    private final Path out;

    Going(String... arguments) throws IOException {
      out = Files.createTempFile("cachette", ".out");
      process = builder(arguments).redirectOutput(out.toFile()).start();
      messages =
          new BufferedReader(
              new InputStreamReader(process.getErrorStream(), StandardCharsets.UTF_8));
    }

    /** Waits for a message that begins like this; answers what follows. */
    String message(String beginning) throws IOException {
      CompletableFuture<?> late =
          CompletableFuture.runAsync(
              process::destroyForcibly, CompletableFuture.delayedExecutor(60, TimeUnit.SECONDS));
      for (String line = messages.readLine(); line != null; line = messages.readLine()) {
        if (line.startsWith(beginning)) {
          late.cancel(true);
          return line.substring(beginning.length()).strip();
        }
      }
      throw new AssertionError("it ended without the message: " + beginning);
    }

    /** Returns the remaining messages, once it has ended. */
    String rest() {
      return messages.lines().collect(Collectors.joining("\n"));
    }

    /** Tells it to stop, and waits; answers its exit code. */
    int stop() throws Exception {
      // Process.destroy() would close what it has still to say.
      process.toHandle().destroy();
      if (!process.waitFor(30, TimeUnit.SECONDS)) {
        throw new AssertionError("it does not stop");
      }
      return process.exitValue();
    }

    String out() throws IOException {
      return Files.readString(out);
    }

    @Override
    public void close() throws Exception {
      process.destroyForcibly().waitFor();
      Files.delete(out);
    }
  }
}
