// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.contract.ContractStore;
import dev.cachette.verification.Compatibility;
import dev.cachette.verification.CompatibilityPage;
import dev.cachette.verification.CompatibilityText;
import dev.cachette.verification.ReleaseDecision;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** {@code cachette compat}. */
@Command(
    name = "compat",
    mixinStandardHelpOptions = true,
    description = {
      "Show which versions of consumers and providers work together, by a store of contracts.",
      "With --release and --to, answer whether a version can go to an environment: exit code 0 for"
          + " yes, 1 for no, with the reasons."
    },
    footerHeading = "%nExamples:%n",
    footer = {
      "  cachette compat /srv/contracts",
      "  cachette compat /srv/contracts --release berths@1.4 --to production",
      "  cachette compat git+https://git.example/contracts.git --html target/compat.html"
    })
final class Compat implements Callable<Integer> {

  @Mixin private Output output;

  @Parameters(paramLabel = "STORE", description = "The store.")
  private String store;

  @Option(
      names = "--release",
      paramLabel = "NAME@VERSION",
      converter = VersionedName.Reader.class,
      description = "A version of a consumer or a provider.")
  private @Nullable VersionedName release;

  @Option(
      names = "--to",
      paramLabel = "ENVIRONMENT",
      description = "The environment that it is to go to.")
  private @Nullable String environment;

  @Option(
      names = "--html",
      paramLabel = "FILE",
      description = "Write the tables as a page, in one file.")
  private @Nullable Path html;

  @Override
  public Integer call() throws IOException {
    if ((release == null) != (environment == null)) {
      throw new WrongUsage("--release and --to go together: --release berths@1.4 --to production.");
    }
    if (release != null && environment != null) {
      return answer(release, environment);
    }
    Compatibility found = ContractStore.at(store).compatibility();
    if (html != null) {
      Files.writeString(html, CompatibilityPage.of(found));
      output.remark("written to " + html);
    }
    if (output.isJson()) {
      output.json(CompatibilityText.json(found));
    } else if (html == null) {
      output.result(CompatibilityText.of(found));
    }
    return 0;
  }

  private int answer(VersionedName asked, String to) {
    ReleaseDecision decision = ContractStore.at(store).release(asked.name(), asked.version(), to);
    if (output.isJson()) {
      output.json(CompatibilityText.json(decision));
    } else {
      output.result(CompatibilityText.of(decision));
    }
    return decision.isAllowed() ? 0 : Tool.DOES_NOT_HOLD;
  }
}
