// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import java.util.ArrayList;
import java.util.List;

/** Columns with headings, each as wide as its content. */
final class Table {

  private final List<String[]> rows = new ArrayList<>();

  Table(String... headings) {
    rows.add(headings);
  }

  void add(String... cells) {
    rows.add(cells);
  }

  @Override
  public String toString() {
    int[] widths = new int[rows.get(0).length];
    for (String[] row : rows) {
      for (int at = 0; at < widths.length; at++) {
        widths[at] = Math.max(widths[at], row[at].length());
      }
    }
    StringBuilder out = new StringBuilder();
    for (String[] row : rows) {
      StringBuilder line = new StringBuilder();
      for (int at = 0; at < widths.length; at++) {
        line.append(row[at]).append(" ".repeat(widths[at] - row[at].length() + 2));
      }
      out.append(line.toString().stripTrailing()).append('\n');
    }
    return out.toString();
  }
}
