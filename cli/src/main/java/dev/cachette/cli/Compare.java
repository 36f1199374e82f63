// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.cassette.Drift;
import dev.cachette.cassette.Matching;
import dev.cachette.contract.ContractStore;
import dev.cachette.contract.Contracts;
import dev.cachette.tooling.CassetteOnDisk;
import dev.cachette.tooling.FileKind;
import dev.cachette.verification.ContractChange;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.TypeConversionException;

/** {@code cachette compare}. */
@Command(
    name = "compare",
    mixinStandardHelpOptions = true,
    description = {
      "Show the drift from one cassette to another of the same calls, or the changes from one"
          + " contract to another.",
      "With --in, the contracts are those of two versions in a store: harbour-desk@2.0."
    },
    footerHeading = "%nExamples:%n",
    footer = {
      "  cachette compare old.har new.har --fail-on shape",
      "  cachette compare old.contract.yaml new.contract.yaml",
      "  cachette compare harbour-desk@2.0 harbour-desk@2.1 --in /srv/contracts"
    })
final class Compare implements Callable<Integer> {

  /** The kinds of drift that make the command fail. */
  enum FailOn {
    /** Changes in shape. */
    SHAPE,
    /** Any change. */
    ANY
  }

  @Mixin private Output output;

  @Parameters(index = "0", paramLabel = "BEFORE", description = "The older cassette or contract.")
  private Path before;

  @Parameters(index = "1", paramLabel = "AFTER", description = "The newer cassette or contract.")
  private Path after;

  @Option(
      names = "--fail-on",
      paramLabel = "WHAT",
      description =
          "Exit with 1 for changes in shape, or those that ask more of the provider (shape); or for"
              + " any change (any).")
  private @Nullable FailOn failOn;

  @Option(
      names = "--ignore-json",
      paramLabel = "PATH",
      description = "Ignore a place in JSON bodies: '$..id'. Can be repeated.")
  private List<String> ignoredJson = List.of();

  @Option(
      names = "--ignore-query",
      paramLabel = "NAME",
      description = "Ignore a query parameter. Can be repeated.")
  private List<String> ignoredQuery = List.of();

  @Option(
      names = "--in",
      paramLabel = "STORE",
      description = "Compare the contracts of two versions of a consumer in this store.")
  private @Nullable String store;

  @Override
  public Integer call() {
    if (store != null || FileKind.named(before) == FileKind.STUBS) {
      return contracts();
    }
    try (CassetteOnDisk old = new CassetteOnDisk(before, output::notice);
        CassetteOnDisk now = new CassetteOnDisk(after, output::notice)) {
      Matching matching = now.ignoringVarying(old.ignoringVarying(Matching.byDefault()));
      if (!ignoredJson.isEmpty()) {
        matching = matching.ignoringJson(ignoredJson.toArray(String[]::new));
      }
      if (!ignoredQuery.isEmpty()) {
        matching = matching.ignoringQuery(ignoredQuery.toArray(String[]::new));
      }
      Drift drift = old.content().compareWith(now.content(), matching);
      if (output.isJson()) {
        output.json(drift.exchanges());
      } else {
        output.result(drift.toString());
      }
      return isFailure(drift, failOn) ? Tool.DOES_NOT_HOLD : 0;
    }
  }

  private int contracts() {
    List<ContractChange> changes =
        store == null
            ? Contracts.compare(before, after)
            : versions(ContractStore.at(store), before.toString(), after.toString());
    if (output.isJson()) {
      output.json(changes);
    } else {
      output.result(text(changes));
    }
    boolean failed =
        failOn == FailOn.ANY && !changes.isEmpty()
            || failOn == FailOn.SHAPE && changes.stream().anyMatch(ContractChange::asksMore);
    return failed ? Tool.DOES_NOT_HOLD : 0;
  }

  private static List<ContractChange> versions(ContractStore store, String before, String after) {
    VersionedName.Reader reader = new VersionedName.Reader();
    try {
      VersionedName old = reader.convert(before);
      VersionedName now = reader.convert(after);
      if (!old.name().equals(now.name())) {
        throw new WrongUsage("--in compares two versions of one consumer.");
      }
      return store.compare(old.name(), old.version(), now.version());
    } catch (TypeConversionException malformed) {
      throw new WrongUsage(String.valueOf(malformed.getMessage()));
    }
  }

  private static String text(List<ContractChange> changes) {
    if (changes.isEmpty()) {
      return "no changes";
    }
    StringBuilder text = new StringBuilder();
    String clause = "";
    for (ContractChange change : changes) {
      String title = change.provider() + ": " + change.clause();
      if (!title.equals(clause)) {
        text.append(title).append('\n');
        clause = title;
      }
      text.append("  ").append(change).append('\n');
    }
    return text.toString();
  }

  static boolean isFailure(Drift drift, @Nullable FailOn failOn) {
    return failOn == FailOn.ANY && !drift.isNone() || failOn == FailOn.SHAPE && drift.isOfShape();
  }
}
