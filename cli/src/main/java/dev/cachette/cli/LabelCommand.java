// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.contract.ContractStore;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** {@code cachette label}. */
@Command(
    name = "label",
    mixinStandardHelpOptions = true,
    description =
        "Label a version of a consumer or a provider in a store of contracts: with the environment"
            + " that it was deployed to, or the branch that it is from.",
    footerHeading = "%nExample:%n",
    footer = "  cachette label berths@1.4 --in /srv/contracts --environment production")
final class LabelCommand implements Callable<Integer> {

  @Mixin private Output output;
  @Mixin private LabelOptions labels;

  @Parameters(
      paramLabel = "NAME@VERSION",
      converter = VersionedName.Reader.class,
      description = "A version of a consumer or a provider that the store knows.")
  private VersionedName release;

  @Option(names = "--in", required = true, paramLabel = "STORE", description = "The store.")
  private String store;

  @Override
  public Integer call() {
    if (labels.areNone()) {
      throw new WrongUsage("no label. Fix: --environment NAME or --branch NAME.");
    }
    ContractStore in = ContractStore.at(store);
    in.label(release.name(), release.version(), labels.labels());
    output.remark("labelled " + release + " in " + in);
    return 0;
  }
}
