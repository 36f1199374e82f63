// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.contract.ContractStore;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** {@code cachette publish}. */
@Command(
    name = "publish",
    mixinStandardHelpOptions = true,
    description = {
      "Publish the contracts of a version of a consumer to a store.",
      "A store is a folder, a git repository (git+URL, or the path of one without a working tree),"
          + " or an HTTP server that takes PUT and lists folders."
    },
    footerHeading = "%nExamples:%n",
    footer = {
      "  cachette publish target/contracts --to /srv/contracts --consumer-version 2.1",
      "  cachette publish target/contracts --to git+ssh://git@git.example/contracts.git \\",
      "      --consumer-version $(git rev-parse --short HEAD) --branch main"
    })
final class Publish implements Callable<Integer> {

  @Mixin private Output output;
  @Mixin private LabelOptions labels;

  @Parameters(
      arity = "1..*",
      paramLabel = "CONTRACTS",
      description = "Contract files, or folders of them.")
  private List<Path> contracts;

  @Option(names = "--to", required = true, paramLabel = "STORE", description = "The store.")
  private String store;

  @Option(
      names = "--consumer-version",
      required = true,
      paramLabel = "VERSION",
      description = "The version of the consumer: a commit or a version number.")
  private String version;

  @Override
  public Integer call() {
    ContractStore to = ContractStore.at(store);
    List<String> published = to.publish(contracts, version, labels.labels());
    if (output.isJson()) {
      output.json(published);
    } else {
      published.forEach(output::result);
    }
    output.remark("published to " + to);
    return 0;
  }
}
