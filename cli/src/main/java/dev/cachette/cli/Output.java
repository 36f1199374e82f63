// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.ObjectWriter;
import dev.cachette.tooling.TerminalText;
import java.io.PrintWriter;
import java.util.function.Consumer;
import picocli.CommandLine.Help.Ansi;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** The output of a command: the same options for all of them. */
final class Output {

  @Spec(Spec.Target.MIXEE)
  private CommandSpec command;

  @Option(names = "--json", description = "Print the result as JSON.")
  private boolean json;

  @Option(
      names = {"-q", "--quiet"},
      description = "Print only the result and errors.")
  private boolean quiet;

  boolean isJson() {
    return json;
  }

  /**
   * Prints a result to standard output. If the reader of a pipe has closed it, the rest is dropped.
   *
   * @throws Failure if it cannot be written for another reason
   */
  void result(String text) {
    styled(TerminalText.of(text.stripTrailing()));
  }

  /** Prints a part of a result, as it is but for control sequences. */
  void part(String text) {
    written(out -> out.print(TerminalText.of(text)));
  }

  /** Returns how findings are laid out on standard output. */
  FindingText layout() {
    return Ansi.AUTO.enabled()
        ? FindingText.forTerminal(
            command.commandLine().setUsageHelpAutoWidth(true).getUsageHelpWidth())
        : FindingText.plain();
  }

  /** As {@link #result}, with control sequences of our own. */
  void styled(String text) {
    written(out -> out.println(text));
  }

  private void written(Consumer<PrintWriter> writing) {
    PrintWriter out = command.commandLine().getOut();
    writing.accept(out);
    if (out.checkError() && !StandardOutput.isPipeClosed()) {
      throw new Failure("standard output cannot be written to.");
    }
  }

  /** Prints a result as JSON. */
  void json(Object value) {
    result(asJson(value));
  }

  /** Returns formatted JSON. */
  static String asJson(Object value) {
    return written(JsonWriters.LAID_OUT, value);
  }

  /** Returns JSON in one line. */
  static String asJsonLine(Object value) {
    return written(JsonWriters.IN_A_LINE, value);
  }

  private static String written(ObjectWriter writer, Object value) {
    try {
      return writer.writeValueAsString(value);
    } catch (JsonProcessingException impossible) {
      throw new IllegalStateException(impossible);
    }
  }

  /** Loading them takes a third of a second, so they wait until they are needed. */
  private static final class JsonWriters {
    static final ObjectWriter IN_A_LINE = new ObjectMapper().writer();
    static final ObjectWriter LAID_OUT = IN_A_LINE.withDefaultPrettyPrinter();
  }

  /** Prints an error. */
  void error(String text) {
    command.commandLine().getErr().println("cachette: " + TerminalText.of(text));
  }

  /** Prints what the user has to know to standard error, even with --quiet. */
  void notice(String text) {
    command.commandLine().getErr().println(TerminalText.of(text));
  }

  /** Prints a remark to standard error. */
  void remark(String text) {
    if (!quiet) {
      command.commandLine().getErr().println(TerminalText.of(text.stripTrailing()));
    }
  }
}
