// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.RealServices;
import dev.cachette.tooling.CassetteRefresh;
import java.nio.file.Path;
import java.util.Map;
import java.util.function.Supplier;
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
    return usable(() -> file == null ? services : services.trusting(file));
  }

  CassetteRefresh.Services servicesAt(Map<String, String> addresses) {
    return usable(() -> new CassetteRefresh.Services(addresses, file));
  }

  private static <T> T usable(Supplier<T> services) {
    try {
      return services.get();
    } catch (IllegalArgumentException unusable) {
      throw new WrongUsage(unusable.getMessage());
    }
  }
}
