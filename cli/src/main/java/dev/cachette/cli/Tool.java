// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.tooling.TerminalText;
import dev.cachette.tooling.ToolVersion;
import java.io.IOException;
import java.io.PrintStream;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import picocli.AutoComplete;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.IVersionProvider;

/** {@code cachette}. Exit codes: 0 success, 1 a check failed, 2 wrong usage, 3 could not run. */
@Command(
    name = "cachette",
    mixinStandardHelpOptions = true,
    versionProvider = Tool.Version.class,
    description = "Inspect cassettes, check stub files, and serve both as a local HTTP server.",
    subcommands = {
      DemoCommand.class,
      Serve.class,
      Record.class,
      Show.class,
      CheckCommand.class,
      Compare.class,
      Refresh.class,
      Redact.class,
      Convert.class,
      Report.class,
      CaptureCommand.class,
      ReplayCommand.class,
      AgentCommand.class,
      Verify.class,
      Publish.class,
      LabelCommand.class,
      Compat.class,
      SchemaCommand.class,
      ManPage.class,
      AutoComplete.GenerateCompletion.class,
      CommandLine.HelpCommand.class
    },
    exitCodeListHeading = "%nExit codes:%n",
    exitCodeList = {
      "0:success",
      "1:a check failed",
      "2:wrong usage",
      "3:could not run; the reason is on standard error"
    },
    footerHeading = "%nExample:%n",
    footer = {
      "  cachette show src/test/cassettes/harbour/arrival.har",
      "",
      "Completion for bash and zsh: source <(cachette generate-completion)",
      "Manual page: cachette man | man -l -",
      "The file - is standard input."
    })
final class Tool {

  /** Exit code: a check failed. */
  static final int DOES_NOT_HOLD = 1;

  /** Exit code: could not run. */
  static final int IMPOSSIBLE = 3;

  private static final PrintStream ERRORS = System.err;

  private Tool() {}

  /** Runs one command. */
  public static void main(String[] arguments) {
    System.exit(run(arguments));
  }

  private static int run(String[] arguments) {
    try {
      return commandLine().execute(StandardInput.read(arguments));
    } catch (IOException unreadable) {
      ERRORS.println("cachette: standard input cannot be read: " + unreadable.getMessage());
      return IMPOSSIBLE;
    } catch (OutOfMemoryError full) {
      ERRORS.println(
          "cachette: not enough memory ("
              + full.getMessage()
              + "). Fix: give it more, with JAVA_TOOL_OPTIONS=-Xmx4g for example.");
      return IMPOSSIBLE;
    } catch (RuntimeException | Error failure) {
      ERRORS.println("cachette: " + TerminalText.of(Failure.line(failure)));
      return IMPOSSIBLE;
    }
  }

  static CommandLine commandLine() {
    CommandLine line = new CommandLine(new Tool());
    line.setOut(new PrintWriter(new StandardOutput(), true, StandardCharsets.UTF_8));
    line.setErr(new PrintWriter(System.err, true, StandardCharsets.UTF_8));
    // The arguments of a recorded command may begin with @, such as those of curl.
    line.setExpandAtFiles(false);
    line.setUsageHelpAutoWidth(true);
    line.setCaseInsensitiveEnumValuesAllowed(true);
    line.setExecutionStrategy(Working::run);
    line.setParameterExceptionHandler(
        (wrong, arguments) -> WrongUsage.tell(wrong.getCommandLine(), wrong));
    line.setExecutionExceptionHandler(
        (failure, command, parsed) -> {
          if (failure instanceof WrongUsage) {
            return WrongUsage.tell(command, failure);
          }
          command.getErr().println("cachette: " + TerminalText.of(Failure.line(failure)));
          return IMPOSSIBLE;
        });
    return line;
  }

  /** The version in the manifest of the jar. */
  static final class Version implements IVersionProvider {

    @Override
    public String[] getVersion() {
      return new String[] {"cachette " + ToolVersion.number()};
    }
  }
}
