// SPDX-License-Identifier: Apache-2.0
package dev.cachette.contract;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;

/** Tables of cases: blocks of lines with an empty one between them, and comments. */
final class Tables {

  private Tables() {}

  /** Returns the lines of each block. */
  static List<String[]> read(String name) {
    String table;
    try (var in = Tables.class.getResourceAsStream(name)) {
      table = new String(in.readAllBytes(), StandardCharsets.UTF_8);
    } catch (IOException unreadable) {
      throw new UncheckedIOException(unreadable);
    }
    List<String[]> blocks = new ArrayList<>();
    for (String block : table.split("\n\n")) {
      String[] lines = block.lines().filter(it -> !it.startsWith("#")).toArray(String[]::new);
      if (lines.length > 0) {
        blocks.add(lines);
      }
    }
    return blocks;
  }
}
