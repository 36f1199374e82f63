// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.tooling.Finding;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import picocli.CommandLine;
import picocli.CommandLine.Model.OptionSpec;

/** Features of all commands: standard input, a manual page, and the layout of findings. */
class ToolTest {

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "check -       | stubs: { request: GET /, answer: { txt: a } } | 1 | unknown key \"txt\"",
        "check -       | {\"log\": 5}                                  | 1 | expected an object",
        "check -       | openapi: 4.0.0                                | 1 | openapi is 4.0.0",
        "convert -     | curl -d a=1 http://tides.example/v1           | 0 | sameText: a=1",
        "convert -     | GET http://tides.example/v1                   | 0 | GET http://tides",
        "show -        | plain text                                    | 3 | stdin.txt",
      })
  void aDashIsStandardInput(String command, String input, int code, String said) throws Exception {
    ProcessBuilder builder = Run.builder(command.strip().split(" "));
    Process process = builder.redirectErrorStream(true).start();
    process.getOutputStream().write(input.getBytes(StandardCharsets.UTF_8));
    process.getOutputStream().close();
    String all = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    assertEquals(code, process.waitFor(), all);
    assertTrue(all.contains(said.strip()), all);
  }

  @Test
  void theSchemaIsThatOfTheDocs() throws Exception {
    Run schema = Run.of("schema");
    assertEquals(0, schema.code(), schema.err());
    assertEquals(
        Files.readString(Path.of("..", "docs", "schema", "cachette-stubs.schema.json")),
        schema.out());
  }

  @Test
  void theManualPageHasEveryCommandAndOption() throws Exception {
    String page = Run.of("man").out();
    assertTrue(page.startsWith(".TH CACHETTE 1"), page);
    for (CommandLine command : Tool.commandLine().getSubcommands().values()) {
      assertTrue(page.contains("\n.SS " + command.getCommandName().replace("-", "\\-")), page);
      for (OptionSpec option : command.getCommandSpec().options()) {
        boolean isOwn = !option.hidden() && !option.usageHelp() && !option.versionHelp();
        assertTrue(
            !isOwn || page.contains(option.longestName().replace("-", "\\-")),
            option.longestName());
      }
    }
    // A line that begins with a dot is a macro.
    assertTrue(
        page.lines()
            .filter(line -> line.startsWith("."))
            .allMatch(line -> line.matches("\\.(TH|SH|SS|TP|PP|B|I|nf|fi)( .*)?")),
        page);
  }

  @Test
  void findingsAreWrappedAtTheWidthOfATerminal() {
    Finding finding =
        new Finding(
            "a.yaml",
            3,
            5,
            "stubs[0]",
            "unknown key \"b\u001b[31m\" of a stub, with a text that is longer than a line. Fix:"
                + " write a. Allowed: one, two, three, four, five, six, seven, eight, nine, ten.");
    String text = FindingText.forTerminal(60).of(finding, Optional.of("    3 | b\n      | ^"));
    String bare = text.replaceAll("\u001b\\[[0-9;]*m", "");
    assertTrue(Arrays.stream(bare.split("\n")).allMatch(line -> line.length() <= 60), bare);
    assertTrue(bare.startsWith("a.yaml:3:5\n    stubs[0]: unknown key"), bare);
    assertTrue(bare.contains("\n    Fix: write a.\n    Allowed: one, "), bare);
    assertTrue(text.contains("\u001b[31m^"), "the mark is red");
    assertEquals(1, text.split("\u001b\\[31m", -1).length - 1, "nothing else is");
    assertEquals(
        finding.toString().replace("\u001b", "\\u001b") + "\n    3 | b\n      | ^",
        FindingText.plain().of(finding, Optional.of("    3 | b\n      | ^")));
  }
}
