// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.cassette.Drift;
import dev.cachette.tooling.CassetteOnDisk;
import dev.cachette.tooling.CassetteRefresh;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** {@code cachette refresh}. */
@Command(
    name = "refresh",
    mixinStandardHelpOptions = true,
    description = {
      "Send the requests of a cassette to the real services again, and show the drift.",
      "The cassette is unchanged, unless --write is given."
    },
    footerHeading = "%nExample:%n",
    footer = "  cachette refresh tides.har --secret TIDES_KEY= --fail-on shape")
final class Refresh implements Callable<Integer> {

  @Mixin private Output output;
  @Mixin private RedactionOptions rules;
  @Mixin private TrustedCa trusted;

  @Parameters(paramLabel = "FILE", description = "The cassette.")
  private Path file;

  @Option(names = "--write", description = "Write the new responses to the cassette.")
  private boolean write;

  @Option(
      names = "--fail-on",
      paramLabel = "WHAT",
      description = "Exit with 1 for changes in shape (shape), or for any change (any).")
  private Compare.@Nullable FailOn failOn;

  @Mixin private ServiceAddresses addresses;

  @Override
  public Integer call() {
    try (CassetteOnDisk cassette = new CassetteOnDisk(file, output::notice)) {
      CassetteRefresh refreshed =
          CassetteRefresh.of(
              cassette, rules.redaction(), trusted.servicesAt(addresses.all()), output::remark);
      Drift drift = refreshed.drift();
      if (output.isJson()) {
        output.json(drift.exchanges());
      } else {
        output.result(drift.toString());
      }
      if (write) {
        refreshed.write();
        output.remark("written to " + file);
      }
      return Compare.isFailure(drift, failOn) ? Tool.DOES_NOT_HOLD : 0;
    }
  }
}
