package dev.cachette.cli;

import java.io.BufferedReader;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.Optional;

/** A line of a file with a mark under one place, as compilers show it. */
final class SourceLine {

  /** A longer line is cut around the place. */
  private static final int WIDTH = 90;

  private static final int BEFORE = 40;

  private SourceLine() {}

  /**
   * Returns the line, and the mark below it; empty if there is no such line.
   *
   * @param line from 1
   * @param column from 1
   */
  static Optional<String> of(String file, int line, int column) {
    return read(file, line).map(text -> marked(text, line, column));
  }

  /** Reads bytes as they are: a file in another charset is shown, too. */
  private static Optional<String> read(String file, int line) {
    try (BufferedReader reader =
        Files.newBufferedReader(Path.of(file), StandardCharsets.ISO_8859_1)) {
      return reader
          .lines()
          .skip(line - 1L)
          .findFirst()
          .map(
              text ->
                  new String(text.getBytes(StandardCharsets.ISO_8859_1), StandardCharsets.UTF_8));
    } catch (IOException | InvalidPathException none) {
      return Optional.empty();
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
