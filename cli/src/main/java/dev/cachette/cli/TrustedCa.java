// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.RealServices;
import java.nio.file.Path;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Option;

/** The option for certificate authorities of real services. */
final class TrustedCa {

  @Option(
      names = "--trusted-ca",
      paramLabel = "FILE",
      description =
          "Certificates (PEM) of authorities that sign for real services, in addition to those that"
              + " Java trusts.")
  private @Nullable Path file;

  RealServices addedTo(RealServices services) {
    try {
      return file == null ? services : services.trusting(file);
    } catch (IllegalArgumentException unusable) {
      throw new WrongUsage(unusable.getMessage());
    }
  }

  @Nullable Path file() {
    return file;
  }
}
