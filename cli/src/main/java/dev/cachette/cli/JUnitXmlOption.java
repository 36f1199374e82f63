// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Option;

/** The option for results as JUnit XML. */
final class JUnitXmlOption {

  @Option(
      names = "--junit-xml",
      paramLabel = "FILE",
      description = "Write the results as JUnit XML as well, for a build server.")
  private @Nullable Path file;

  /** Writes the results, if requested. */
  void write(Supplier<String> results) throws IOException {
    if (file != null) {
      if (file.toAbsolutePath().getParent() != null) {
        Files.createDirectories(file.toAbsolutePath().getParent());
      }
      Files.writeString(file, results.get());
    }
  }
}
