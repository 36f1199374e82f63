// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.curl;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** Words are those of a real shell: it quotes them, and it splits them. */
class ShellWordsTest {

  private static final String CHARACTERS =
      "ab1 \t\n'\"\\$`!#&;|<>()[]{}*?~=,:@%^-+_./\u00e9\u20ac\u0001\u007f";

  private static String random(Random random) {
    StringBuilder text = new StringBuilder();
    for (int length = random.nextInt(12); length > 0; length--) {
      text.append(CHARACTERS.charAt(random.nextInt(CHARACTERS.length())));
    }
    return text.toString();
  }

  private static String bash(String script, List<String> arguments) throws Exception {
    List<String> command = new ArrayList<>(List.of("bash", "-c", script, "bash"));
    command.addAll(arguments);
    ProcessBuilder shell = new ProcessBuilder(command).redirectErrorStream(true);
    shell.environment().put("LC_ALL", "C.UTF-8");
    Process process = shell.start();
    process.getOutputStream().close();
    String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    assertEquals(0, process.waitFor(), said);
    return said;
  }

  @Test
  void wordsThatAShellHasQuotedAreReadBack() throws Exception {
    Random random = new Random(12);
    List<String> words = new ArrayList<>();
    for (int at = 0; at < 2_000; at++) {
      words.add(random(random));
    }

    String quoted = bash("printf '%q ' \"$@\"", words);

    assertEquals(words, ShellWords.of(quoted.substring(0, quoted.length() - 1)));
  }

  @Test
  void quotedPartsOfAllKindsAreSplitAsByAShell() throws Exception {
    Random random = new Random(7);
    List<String> lines = new ArrayList<>();
    for (int at = 0; at < 300; at++) {
      lines.add(line(random));
    }
    for (String line : lines) {
      String said = bash("printf '%s\\0' " + line, List.of());
      assertEquals(List.of(said.split("\0", -1)), withEnd(ShellWords.of(line)), line);
    }
  }

  private static List<String> withEnd(List<String> words) {
    List<String> all = new ArrayList<>(words);
    all.add("");
    return all;
  }

  /** Returns a command of words, each of parts that are quoted in one way or another. */
  private static String line(Random random) {
    StringBuilder line = new StringBuilder("x");
    for (int parts = 1 + random.nextInt(8); parts > 0; parts--) {
      line.append(
          switch (random.nextInt(8)) {
            case 0 -> " ";
            case 1 -> " \\\n  y";
            case 2 -> "'a \"\\ $b'";
            case 3 -> "\"a '\\\" \\\\ \\x\"";
            case 4 -> "\\ \\'\\\"";
            case 5 -> "$'t\\t\\x41\\102\\u00e9\\''";
            case 6 -> "b=c:d/%20";
            default -> "\"1\\\n2\"";
          });
    }
    return line.toString();
  }
}
