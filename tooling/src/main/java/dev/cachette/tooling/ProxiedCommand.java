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

/**
 * A command that runs with proxy settings in the environment variables that most programs use, and
 * with an agent in JVMs, which use none.
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

  private ProxiedCommand() {}

  /**
   * Runs it with inherited input and output; returns its exit code.
   *
   * @param command the program and its arguments
   * @param proxy the address of the proxy
   * @param certificate a PEM file (RFC 7468) with the certificate that it has to trust
   * @throws ToolingException if it cannot be run
   * @throws IOException if the agent cannot be written to a temporary file
   */
  public static int run(List<String> command, URI proxy, Path certificate) throws IOException {
    ProcessBuilder builder = new ProcessBuilder(command).inheritIO();
    Map<String, String> environment = builder.environment();
    PROXIES.forEach(name -> environment.put(name, proxy.toString()));
    CERTIFICATES.forEach(name -> environment.put(name, certificate.toString()));
    environment.put(NODE_PROXY, "1");
    environment.remove("no_proxy");
    environment.remove("NO_PROXY");
    Optional<Path> ownJar = ownJar();
    if (ownJar.isEmpty()) {
      return run(builder);
    }
    try (TunnelJar agent = TunnelJar.write(ownJar.get())) {
      environment.merge(
          JVM_OPTIONS,
          agent.option(new TunnelJar.Recorder(proxy.getPort(), certificate, 0, false)),
          (old, own) -> old + " " + own);
      return run(builder);
    }
  }

  /** Returns the jar of this program; empty if it runs from a folder of classes. */
  private static Optional<Path> ownJar() {
    try {
      return Optional.of(
              Path.of(
                  ProxiedCommand.class.getProtectionDomain().getCodeSource().getLocation().toURI()))
          .filter(Files::isRegularFile);
    } catch (URISyntaxException | IllegalArgumentException notOnDisk) {
      return Optional.empty();
    }
  }

  private static int run(ProcessBuilder builder) {
    String name = builder.command().get(0);
    Process process;
    try {
      process = builder.start();
    } catch (IOException impossible) {
      throw new ToolingException(name + " cannot be run: " + impossible.getMessage());
    }
    Thread ending = new Thread(process::destroy);
    Runtime.getRuntime().addShutdownHook(ending);
    try {
      int code = process.waitFor();
      Runtime.getRuntime().removeShutdownHook(ending);
      return code;
    } catch (InterruptedException interrupted) {
      process.destroy();
      Thread.currentThread().interrupt();
      throw new ToolingException("interrupted while " + name + " ran.");
    } catch (IllegalStateException stopping) {
      throw new ToolingException("stopped while " + name + " ran.");
    }
  }
}
