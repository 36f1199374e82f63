// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.cases.Capture;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;

/** The commands that are typed while cases are captured. */
final class CaseCommands {

  private static final String HELP =
      "type: name NUMBER NAME, drop NUMBER, vary NUMBER PLACE, list, stop";

  private final Capture capture;
  private final Output output;
  private final CasePrinter printer;
  private final CaptureEnd end;

  private CaseCommands(Capture capture, Output output, CasePrinter printer, CaptureEnd end) {
    this.capture = capture;
    this.output = output;
    this.printer = printer;
    this.end = end;
  }

  /** Reads them from standard input, on a thread of its own. */
  static void read(Capture capture, Output output, CasePrinter printer, CaptureEnd end) {
    Thread thread =
        new Thread(new CaseCommands(capture, output, printer, end)::readAll, "cachette-commands");
    thread.setDaemon(true);
    thread.start();
  }

  private void readAll() {
    BufferedReader in =
        new BufferedReader(new InputStreamReader(System.in, StandardCharsets.UTF_8));
    try {
      for (String line = in.readLine(); line != null; line = in.readLine()) {
        if (!line.isBlank()) {
          run(line.strip());
        }
      }
    } catch (IOException unreadable) {
      // There is no terminal.
    }
  }

  private void run(String line) {
    String[] words = line.split("\\s+", 3);
    try {
      switch (words[0]) {
        case "name" -> capture.rename(number(words), rest(words, "a name"));
        case "drop" -> {
          capture.drop(number(words));
          printer.dropped(number(words));
        }
        case "vary" -> capture.markVarying(number(words), rest(words, "a place, such as $.id"));
        case "list" -> printer.list(capture.cases());
        case "stop" -> end.ask();
        default -> output.remark(HELP);
      }
    } catch (IllegalArgumentException wrong) {
      output.remark(String.valueOf(wrong.getMessage()));
    }
  }

  private static long number(String... words) {
    if (words.length < 2 || !words[1].matches("#?[0-9]{1,9}")) {
      throw new IllegalArgumentException(words[0] + " needs the number of a case. " + HELP);
    }
    return Long.parseLong(words[1].replace("#", ""));
  }

  private static String rest(String[] words, String what) {
    if (words.length < 3) {
      throw new IllegalArgumentException(
          words[0] + " " + words[1] + " needs " + what + ". " + HELP);
    }
    return words[2];
  }
}
