// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.guide;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Modules;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/**
 * No switch over constants of our own has a default that guesses: with a further constant, the
 * compiler, or an exception, names the places that must know it.
 */
class ExhaustiveSwitchTest {

  private static final Pattern COMMENT = Pattern.compile("/\\*[\\s\\S]*?\\*/|//.*");
  private static final Pattern ENUM = Pattern.compile("enum \\w+[^{]*\\{([^;}]*)");
  private static final Pattern CONSTANT = Pattern.compile("(?m)^\\s*([A-Z][A-Z_0-9]*)\\b");
  private static final Pattern SWITCH = Pattern.compile("switch \\(");
  private static final Pattern LABELS =
      Pattern.compile("(?m)^\\s*case ([A-Z][A-Z_0-9, \\n]*?)\\s*->");
  private static final Pattern DEFAULT = Pattern.compile("(?m)^\\s*default ->(?!\\s*throw)");

  @Test
  void theyHaveNoDefault() throws IOException {
    List<Path> sources = new ArrayList<>();
    for (String module : Modules.OURS) {
      try (Stream<Path> files = Files.walk(Path.of("..", module, "src", "main", "java"))) {
        files.filter(file -> file.toString().endsWith(".java")).forEach(sources::add);
      }
    }
    Set<String> ours = new HashSet<>();
    for (Path source : sources) {
      ours.addAll(constants(Files.readString(source)));
    }
    assertTrue(ours.contains("CONNECTION_REFUSED"), ours::toString);

    List<String> found = new ArrayList<>();
    for (Path source : sources) {
      String code = Files.readString(source);
      for (String each : switches(code)) {
        if (guesses(each, ours)) {
          found.add(source.getFileName() + ": " + each.lines().findFirst().orElseThrow());
        }
      }
    }
    assertEquals(List.of(), found);
  }

  @ParameterizedTest
  @CsvSource({
    "case RED -> 1;, false",
    "default -> 1;, true",
    "default -> throw new A();, false",
    "case OTHER -> 2; default -> 1;, false",
    "case RED -> 2; default -> 1;, true"
  })
  void suchAreFound(String cases, boolean found) {
    String code =
        "enum Light {\n RED,\n GREEN;\n}\nint x = switch (light) {\n case GREEN -> 0;\n "
            + cases.replace("; ", ";\n ")
            + "\n};";

    assertEquals(found, guesses(switches(code).get(0), constants(code)));
  }

  private static Set<String> constants(String code) {
    Set<String> constants = new HashSet<>();
    Matcher each = ENUM.matcher(COMMENT.matcher(code).replaceAll(""));
    while (each.find()) {
      Matcher constant = CONSTANT.matcher(each.group(1));
      while (constant.find()) {
        constants.add(constant.group(1));
      }
    }
    return constants;
  }

  /** Returns the text of each switch, up to the brace that closes it. */
  private static List<String> switches(String code) {
    List<String> switches = new ArrayList<>();
    Matcher each = SWITCH.matcher(code);
    while (each.find()) {
      int depth = 0;
      int at = code.indexOf('{', each.end());
      do {
        depth += code.charAt(at) == '{' ? 1 : code.charAt(at) == '}' ? -1 : 0;
        at++;
      } while (depth > 0 && at < code.length());
      switches.add(code.substring(each.start(), at));
    }
    return switches;
  }

  private static boolean guesses(String code, Set<String> ours) {
    List<String> labels = new ArrayList<>();
    Matcher each = LABELS.matcher(code);
    while (each.find()) {
      labels.addAll(List.of(each.group(1).trim().split("[,\\s]+")));
    }
    return !labels.isEmpty() && ours.containsAll(labels) && DEFAULT.matcher(code).find();
  }
}
