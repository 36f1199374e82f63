package dev.cachette.cli;

/**
 * A problem that a check has found.
 *
 * @param file the file
 * @param line its line, from 1
 * @param column its column, from 1
 * @param path the place in its tree; empty for the whole file
 * @param finding the problem
 */
record Finding(String file, int line, int column, String path, String finding) {

  /** Returns the finding, and the line with a mark under its place, unless it is for the file. */
  String withSource() {
    boolean placed = line > 1 || column > 1;
    return this + (placed ? SourceLine.of(file, line, column).map(it -> "\n" + it).orElse("") : "");
  }

  @Override
  public String toString() {
    return String.format(
        "%s:%d:%d: %s%s", file, line, column, path.isEmpty() ? "" : path + ": ", finding);
  }
}
