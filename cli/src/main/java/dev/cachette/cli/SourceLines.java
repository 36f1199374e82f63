// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.tooling.Finding;
import java.io.BufferedReader;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/** The lines of files that findings are about, each with a mark, as compilers show them. */
final class SourceLines {

  /** A longer line is cut around the place. */
  private static final int WIDTH = 90;

  private static final int BEFORE = 40;

  private SourceLines() {}

  /** Returns the line of each finding, and below it a mark under its place; empty without one. */
  static List<Optional<String>> of(List<Finding> findings) {
    List<Optional<String>> texts = new ArrayList<>();
    Map<String, TreeMap<Integer, List<Integer>>> places = new LinkedHashMap<>();
    for (Finding finding : findings) {
      // Otherwise it is for the whole file.
      if (finding.line() > 1 || finding.column() > 1) {
        places
            .computeIfAbsent(finding.file(), file -> new TreeMap<>())
            .computeIfAbsent(finding.line(), line -> new ArrayList<>())
            .add(texts.size());
      }
      texts.add(Optional.empty());
    }
    places.forEach((file, lines) -> add(file, lines, findings, texts));
    return texts;
  }

  /** Reads a file once; its bytes as they are, since one in another charset is shown, too. */
  private static void add(
      String file,
      TreeMap<Integer, List<Integer>> lines,
      List<Finding> findings,
      List<Optional<String>> texts) {
    try (BufferedReader reader =
        Files.newBufferedReader(Path.of(file), StandardCharsets.ISO_8859_1)) {
      int number = 1;
      for (String text = reader.readLine();
          text != null && number <= lines.lastKey();
          text = reader.readLine(), number++) {
        for (int at : lines.getOrDefault(number, List.of())) {
          String line =
              new String(text.getBytes(StandardCharsets.ISO_8859_1), StandardCharsets.UTF_8);
          texts.set(at, Optional.of(marked(line, number, findings.get(at).column())));
        }
      }
    } catch (IOException | InvalidPathException none) {
      // The findings say where it is.
    }
  }

  private static String marked(String text, int line, int column) {
    int place = Math.min(Math.max(0, column - 1), text.length());
    while (column == 1 && place < text.length() && text.charAt(place) == ' ') {
      // The first column stands for the whole line.
      place++;
    }
    int from = text.length() <= WIDTH ? 0 : Math.max(0, place - BEFORE);
    int to = Math.min(text.length(), from + WIDTH);
    String shown = text.substring(from, to).replace('\t', ' ');
    String number = String.format("%5d | ", line);
    return number
        + (from > 0 ? "..." : "")
        + shown
        + (to < text.length() ? "..." : "")
        + "\n"
        + " ".repeat(number.length() - 2)
        + "| "
        + " ".repeat(place - from + (from > 0 ? 3 : 0))
        + "^";
  }
}
