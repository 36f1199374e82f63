package dev.cachette.cli;

import java.io.IOException;
import java.net.URI;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;

/** A command that runs with proxy settings in the environment variables that most programs use. */
final class Child {

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

  private Child() {}

  /** Runs it with inherited input and output; returns its exit code. */
  static int run(List<String> command, URI proxy, Path certificate) throws IOException {
    ProcessBuilder builder = new ProcessBuilder(command).inheritIO();
    Map<String, String> environment = builder.environment();
    PROXIES.forEach(name -> environment.put(name, proxy.toString()));
    CERTIFICATES.forEach(name -> environment.put(name, certificate.toString()));
    environment.remove("no_proxy");
    environment.remove("NO_PROXY");
    Process process;
    try {
      process = builder.start();
    } catch (IOException impossible) {
      throw new Failure(command.get(0) + " cannot be run: " + impossible.getMessage());
    }
    try {
      return process.waitFor();
    } catch (InterruptedException interrupted) {
      process.destroy();
      Thread.currentThread().interrupt();
      throw new Failure("interrupted while " + command.get(0) + " ran.");
    }
  }
}
