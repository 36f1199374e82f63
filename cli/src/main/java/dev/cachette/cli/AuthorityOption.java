// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import java.nio.file.Path;
import picocli.CommandLine.Option;

/** The option for the authority of the certificates that the tool makes. */
final class AuthorityOption {

  @Option(
      names = "--ca",
      paramLabel = "FILE",
      description =
          "The key and certificate for HTTPS; by default ~/.cachette/authority.pem, which is"
              + " created at first use, readable only by its owner.")
  private Path file = folder().resolve("authority.pem");

  /** Returns the file. */
  Path file() {
    return file;
  }

  /** Returns the folder of the tool's own files. */
  static Path folder() {
    return home().resolve(".cachette");
  }

  /** As other programs do: the variable of the shell before the entry of the user. */
  private static Path home() {
    String variable = System.getenv("HOME");
    return Path.of(
        variable == null || variable.isBlank() ? System.getProperty("user.home") : variable);
  }
}
