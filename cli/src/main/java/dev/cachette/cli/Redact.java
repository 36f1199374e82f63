// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.cassette.Redaction;
import dev.cachette.tooling.CassetteRedaction;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** {@code cachette redact}. */
@Command(
    name = "redact",
    mixinStandardHelpOptions = true,
    description = {
      "Redact secrets in cassettes and in HAR files exported by a browser or another tool.",
      "Uses the rules of recording. Everything else in the files is unchanged."
    },
    footerHeading = "%nExample:%n",
    footer = "  cachette redact export.har --to harbour.har --secret TIDES_KEY=")
final class Redact implements Callable<Integer> {

  @Mixin private Output output;
  @Mixin private RedactionOptions rules;

  @Parameters(arity = "1..*", paramLabel = "FILE", description = "The files.")
  private List<Path> files;

  @Option(
      names = "--to",
      paramLabel = "FILE",
      description = "The output file; by default, each file is replaced.")
  private @Nullable Path target;

  @Override
  public Integer call() {
    if (target != null && files.size() > 1) {
      throw new WrongUsage("--to takes one file, but " + files.size() + " are given.");
    }
    Redaction redaction = rules.redaction();
    List<Object> results = new ArrayList<>();
    for (Path file : files) {
      redact(file, redaction, results);
    }
    if (output.isJson()) {
      output.json(results);
    }
    return 0;
  }

  private void redact(Path file, Redaction rules, List<Object> results) {
    CassetteRedaction result =
        CassetteRedaction.of(file, Optional.ofNullable(target), rules, output::notice);
    if (output.isJson()) {
      results.add(
          Map.of(
              "file",
              file.toString(),
              "exchangesWithSecrets",
              result.changed(),
              "likely",
              result.likely()));
    } else {
      output.result(
          String.format(
              "%s: redacted secrets in %d of %d exchanges",
              file, result.changed(), result.exchanges()));
      result.likely().forEach(output::result);
    }
    if (!result.likely().isEmpty()) {
      output.remark(
          "The listed text was redacted because it looks like a secret. If it is not: --allow it,"
              + " or name its place with --not-secret.");
    }
  }
}
