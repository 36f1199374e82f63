// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.tooling.ProxiedCommand;
import dev.cachette.tooling.RunningCommand;
import dev.cachette.tooling.ToolingException;
import java.io.IOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Option;

/** The options for the application whose calls are captured or replayed. */
final class Application {

  private static final int SHOWN_LINES = 20;
  private static final int LARGEST_PORT = 65_534;

  @Option(
      names = "--app",
      required = true,
      paramLabel = "ORIGIN",
      converter = OriginReader.class,
      description = "The origin of the application, such as http://localhost:8080.")
  private String origin;

  @Option(
      names = "--ready-within",
      paramLabel = "TIME",
      converter = DurationReader.class,
      description = "How long the command may take until it accepts connections; 60s by default.")
  private Duration limit = Duration.ofMinutes(1);

  @Option(
      names = "--app-log",
      paramLabel = "FILE",
      description = "Write the output of the command here; by default to a temporary file.")
  private @Nullable Path log;

  @Option(
      names = "--outgoing-port",
      paramLabel = "PORT",
      converter = PortReader.class,
      description =
          "The port of the proxy for outgoing calls, for an application that runs already with the"
              + " option that cachette agent prints. The port after it is used as well.")
  private @Nullable Integer outgoingPort;

  /** Returns the origin of the application. */
  String origin() {
    return origin;
  }

  /**
   * Returns the port of the proxy for outgoing calls.
   *
   * @param isStarted whether the application is started by a command
   */
  Optional<Integer> outgoingPort(boolean isStarted) {
    if (outgoingPort == null && !isStarted) {
      throw new WrongUsage(
          "which application? Fix: a command after --; or, if it runs already with the option that"
              + " cachette agent --outgoing-port PORT prints, --outgoing-port PORT.");
    }
    return Optional.ofNullable(outgoingPort).map(Application::requireOneAfter);
  }

  /** Refuses a port for outgoing calls that has none after it. */
  static int requireOneAfter(int port) {
    if (port == 0 || port > LARGEST_PORT) {
      throw new WrongUsage("--outgoing-port needs a port from 1 to " + LARGEST_PORT + ".");
    }
    return port;
  }

  /** An application that was started, with its files. */
  record Started(RunningCommand command, Path certificate) implements AutoCloseable {

    @Override
    public void close() {
      command.close();
      certificate.toFile().delete();
    }
  }

  /**
   * Starts it, and waits until it is ready.
   *
   * @param questions the port where its agent answers who makes a call; 0 if nobody asks
   * @param output the end of its own output is printed here, if it does not become ready
   * @throws ToolingException if it does not become ready
   */
  Started start(List<String> command, URI proxy, String authorityPem, int questions, Output output)
      throws IOException {
    Path certificate = Files.createTempFile("cachette", ".pem");
    Files.writeString(certificate, authorityPem);
    Path said = log == null ? Files.createTempFile("cachette-app", ".log") : log;
    Started started =
        new Started(
            ProxiedCommand.of(command, proxy, certificate).askedAt(questions).logTo(said).start(),
            certificate);
    try {
      started.command().awaitReady(URI.create(origin), limit);
      return started;
    } catch (ToolingException late) {
      started.close();
      output.notice("The output of the command ends with:\n" + end(said));
      throw late;
    }
  }

  private static String end(Path output) throws IOException {
    List<String> lines = Files.readAllLines(output);
    return String.join("\n", lines.subList(Math.max(0, lines.size() - SHOWN_LINES), lines.size()))
        .indent(2);
  }
}
