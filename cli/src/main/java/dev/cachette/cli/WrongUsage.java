// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import java.util.List;
import java.util.stream.Collectors;
import picocli.CommandLine;
import picocli.CommandLine.UnmatchedArgumentException;

/** Thrown for wrong usage: one line says what is wrong, and where to read on. */
final class WrongUsage extends Failure {

  private static final long serialVersionUID = 1;

  WrongUsage(String message) {
    super(message);
  }

  /** Prints it; returns the exit code. */
  static int tell(CommandLine command, Throwable wrong) {
    command
        .getErr()
        .printf(
            "cachette: %s See: %s --help%n",
            sentence(Failure.oneLine(message(wrong))), command.getCommandSpec().qualifiedName());
    return command.getCommandSpec().exitCodeOnInvalidInput();
  }

  private static String message(Throwable wrong) {
    if (wrong instanceof UnmatchedArgumentException unmatched) {
      List<String> near = unmatched.getSuggestions();
      return "unknown command or option \""
          + unmatched.getUnmatched().get(0)
          + "\"."
          + (near.isEmpty()
              ? ""
              : near.stream().collect(Collectors.joining(" or ", " Did you mean ", "?")));
    }
    return String.valueOf(wrong.getMessage());
  }

  private static String sentence(String text) {
    return text.endsWith(".") || text.endsWith("?") ? text : text + ".";
  }
}
