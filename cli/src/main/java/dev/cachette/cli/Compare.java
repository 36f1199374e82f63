// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.cassette.Drift;
import dev.cachette.cassette.Matching;
import dev.cachette.tooling.CassetteOnDisk;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** {@code cachette compare}. */
@Command(
    name = "compare",
    mixinStandardHelpOptions = true,
    description = "Show the drift from one cassette to another of the same calls.",
    footerHeading = "%nExample:%n",
    footer = "  cachette compare old.har new.har --fail-on shape")
final class Compare implements Callable<Integer> {

  /** The kinds of drift that make the command fail. */
  enum FailOn {
    /** Changes in shape. */
    SHAPE,
    /** Any change. */
    ANY
  }

  @Mixin private Output output;

  @Parameters(index = "0", paramLabel = "BEFORE", description = "The older cassette.")
  private Path before;

  @Parameters(index = "1", paramLabel = "AFTER", description = "The newer cassette.")
  private Path after;

  @Option(
      names = "--fail-on",
      paramLabel = "WHAT",
      description = "Exit with 1 for changes in shape (shape), or for any change (any).")
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

  @Override
  public Integer call() {
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

  static boolean isFailure(Drift drift, @Nullable FailOn failOn) {
    return failOn == FailOn.ANY && !drift.isNone() || failOn == FailOn.SHAPE && drift.isOfShape();
  }
}
