// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import java.util.spi.ToolProvider;
import picocli.CommandLine.Command;
import picocli.CommandLine.Help.Ansi;

/** {@code cachette demo}. */
@Command(
    name = "demo",
    mixinStandardHelpOptions = true,
    description = {
      "Run the demo: a complete arrival in the harbour of Marrow Bay, without a network.",
      "It shows stubs, a fault, an explanation, assertions, a recording and its replay, and writes"
          + " a report of the run to a temporary folder."
    },
    footerHeading = "%nExample:%n",
    footer = "  cachette demo")
final class DemoCommand implements Callable<Integer> {

  private static final String REPORT = "cachette.report";

  @Override
  public Integer call() throws Exception {
    ToolProvider demo = ToolProvider.findFirst("marrow-bay").orElseThrow();
    Path report = reportFolder();
    String[] arguments = Ansi.AUTO.enabled() ? new String[] {"--color"} : new String[0];
    PrintWriter out = new PrintWriter(System.out, true, StandardCharsets.UTF_8);
    PrintWriter err = new PrintWriter(System.err, true, StandardCharsets.UTF_8);
    boolean holds = demo.run(out, err, arguments) == 0;
    out.printf("The report of this run, written at exit: %s%n", report.resolve("index.html"));
    return holds ? 0 : Tool.DOES_NOT_HOLD;
  }

  /** Asks for a report as a build does, unless the user has. */
  private static Path reportFolder() throws IOException {
    String given = System.getProperty(REPORT);
    Path folder =
        given == null
            ? Files.createTempDirectory("cachette-demo")
            : Path.of(given).toAbsolutePath();
    System.setProperty(REPORT, folder.toString());
    return folder;
  }
}
