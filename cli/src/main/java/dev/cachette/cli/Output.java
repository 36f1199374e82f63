package dev.cachette.cli;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.ObjectWriter;
import java.io.PrintWriter;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** How a command says what it found: the same options for all of them. */
final class Output {

  @Spec(Spec.Target.MIXEE)
  private CommandSpec command;

  @Option(names = "--json", description = "Say the result as JSON.")
  private boolean json;

  @Option(
      names = {"-q", "--quiet"},
      description = "Say nothing but the result and errors.")
  private boolean quiet;

  boolean isJson() {
    return json;
  }

  /**
   * A result, which goes to standard output. Whoever reads that through a pipe may have had enough:
   * then the rest is not said.
   *
   * @throws Failure if it cannot be written for another reason
   */
  void result(String text) {
    PrintWriter out = command.commandLine().getOut();
    out.println(text.stripTrailing());
    if (out.checkError() && !StandardOutput.isPipeClosed()) {
      throw new Failure("standard output cannot be written to.");
    }
  }

  /** A result as JSON. */
  void json(Object value) {
    result(asJson(value));
  }

  /** As JSON, laid out. */
  static String asJson(Object value) {
    return written(JsonWriters.LAID_OUT, value);
  }

  /** As JSON in one line. */
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

  /** A third of a second is spent on them, so they wait until somebody asks for JSON. */
  private static final class JsonWriters {
    static final ObjectWriter IN_A_LINE = new ObjectMapper().writer();
    static final ObjectWriter LAID_OUT = IN_A_LINE.withDefaultPrettyPrinter();
  }

  /** Why it could not be done. */
  void error(String text) {
    command.commandLine().getErr().println("cachette: " + text);
  }

  /** A remark, which goes to standard error. */
  void remark(String text) {
    if (!quiet) {
      command.commandLine().getErr().println(text.stripTrailing());
    }
  }
}
