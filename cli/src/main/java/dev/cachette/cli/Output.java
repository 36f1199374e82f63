package dev.cachette.cli;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.SerializationFeature;
import java.io.PrintWriter;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** How a command says what it found: the same options for all of them. */
final class Output {

  private static final ObjectMapper JSON =
      new ObjectMapper().enable(SerializationFeature.INDENT_OUTPUT);

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
    try {
      return JSON.writeValueAsString(value);
    } catch (JsonProcessingException impossible) {
      throw new IllegalStateException(impossible);
    }
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
