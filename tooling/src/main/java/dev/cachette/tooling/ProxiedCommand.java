// SPDX-License-Identifier: Apache-2.0
package dev.cachette.tooling;

import dev.cachette.internal.tunnel.TunnelJar;
import java.io.IOException;
import java.net.URI;
import java.net.URISyntaxException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * A command that runs with proxy settings in the environment variables that most programs use, and
 * with an agent in JVMs, which use none. Immutable: every method that sets something returns a new
 * object.
 */
public final class ProxiedCommand {

  private static final List<String> PROXIES =
      List.of("http_proxy", "https_proxy", "HTTP_PROXY", "HTTPS_PROXY", "all_proxy", "ALL_PROXY");

  private static final List<String> CERTIFICATES =
      List.of(
          "SSL_CERT_FILE",
          "CURL_CA_BUNDLE",
          "REQUESTS_CA_BUNDLE",
          "NODE_EXTRA_CA_CERTS",
          "AWS_CA_BUNDLE",
          "GIT_SSL_CAINFO");

  /** Lets Node.js use the proxy variables, since versions 22.21 and 24.5. */
  private static final String NODE_PROXY = "NODE_USE_ENV_PROXY";

  private static final String JVM_OPTIONS = "JAVA_TOOL_OPTIONS";

  private final List<String> command;
  private final URI proxy;
  private final Path certificate;
  private final int questions;
  private final @Nullable Path log;

  private ProxiedCommand(
      List<String> command, URI proxy, Path certificate, int questions, @Nullable Path log) {
    this.command = List.copyOf(command);
    this.proxy = proxy;
    this.certificate = certificate;
    this.questions = questions;
    this.log = log;
  }

  /**
   * Returns a command with inherited input and output.
   *
   * @param command the program and its arguments
   * @param proxy the address of the proxy
   * @param certificate a PEM file (RFC 7468) with the certificate that it has to trust
   */
  public static ProxiedCommand of(List<String> command, URI proxy, Path certificate) {
    return new ProxiedCommand(command, proxy, certificate, 0, null);
  }

  /** Lets agents in JVMs answer, at this port of this machine, who makes a call. */
  public ProxiedCommand askedAt(int port) {
    return new ProxiedCommand(command, proxy, certificate, port, log);
  }

  /** Writes its output to a file, and gives it no input. */
  public ProxiedCommand logTo(Path file) {
    return new ProxiedCommand(command, proxy, certificate, questions, file);
  }

  /**
   * Runs it; returns its exit code.
   *
   * @throws ToolingException if it cannot be run
   * @throws IOException if the agent cannot be written to a temporary file
   */
  public int run() throws IOException {
    try (RunningCommand running = start()) {
      return running.await();
    }
  }

  /**
   * Starts it.
   *
   * @throws ToolingException if it cannot be run
   * @throws IOException if the agent cannot be written to a temporary file
   */
  public RunningCommand start() throws IOException {
    ProcessBuilder builder = new ProcessBuilder(command).inheritIO();
    if (log != null) {
      builder.redirectInput(ProcessBuilder.Redirect.PIPE);
      builder.redirectErrorStream(true).redirectOutput(log.toFile());
    }
    Map<String, String> environment = builder.environment();
    PROXIES.forEach(name -> environment.put(name, proxy.toString()));
    CERTIFICATES.forEach(name -> environment.put(name, certificate.toString()));
    environment.put(NODE_PROXY, "1");
    environment.remove("no_proxy");
    environment.remove("NO_PROXY");
    Optional<Path> ownJar = ownJar();
    if (ownJar.isEmpty()) {
      return RunningCommand.start(builder, () -> {});
    }
    TunnelJar agent = TunnelJar.write(ownJar.get());
    String option =
        agent.option(new TunnelJar.Recorder(proxy.getPort(), certificate, questions, false));
    environment.merge(JVM_OPTIONS, option, (old, own) -> old + " " + own);
    try {
      return RunningCommand.start(builder, agent::close);
    } catch (RuntimeException impossible) {
      agent.close();
      throw impossible;
    }
  }

  /** Returns the jar of this program; empty if it runs from a folder of classes. */
  static Optional<Path> ownJar() {
    try {
      return Optional.of(
              Path.of(
                  ProxiedCommand.class.getProtectionDomain().getCodeSource().getLocation().toURI()))
          .filter(Files::isRegularFile);
    } catch (URISyntaxException | IllegalArgumentException notOnDisk) {
      return Optional.empty();
    }
  }
}
