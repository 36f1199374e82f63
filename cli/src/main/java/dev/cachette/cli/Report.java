// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.report.Reports;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** {@code cachette report}. */
@Command(
    name = "report",
    mixinStandardHelpOptions = true,
    description = {
      "Write the report of a test run: index.html, run.json and summary.md.",
      "A test run with -Dcachette.report=FOLDER writes its own report. This command merges the"
          + " folders of several modules, and includes JVMs that were killed."
    },
    footerHeading = "%nExample:%n",
    footer = "  cachette report desk/target/cachette customs/target/cachette --to target/cachette")
final class Report implements Callable<Integer> {

  @Mixin private Output output;

  @Parameters(arity = "1..*", paramLabel = "FOLDER", description = "The report folders.")
  private List<Path> folders;

  @Option(
      names = "--to",
      paramLabel = "FOLDER",
      description = "The folder of the report; by default the first one.")
  private @Nullable Path to;

  @Override
  public Integer call() throws IOException {
    Reports.Summary summary = Reports.write(folders, to == null ? folders.get(0) : to);
    if (output.isJson()) {
      output.json(summary);
    } else {
      output.result(summary.html() + ": " + summary);
    }
    return 0;
  }
}
