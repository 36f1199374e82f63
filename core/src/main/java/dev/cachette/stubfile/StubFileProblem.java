package dev.cachette.stubfile;

/**
 * One thing that is wrong in a stub file.
 *
 * @param file the file, as it was named
 * @param line its line, from 1
 * @param column its column, from 1
 * @param path the place in the tree, {@code stubs[0].answer.status}; empty for the whole file
 * @param message what is wrong, and how to mend it
 */
public record StubFileProblem(String file, int line, int column, String path, String message) {

  /** The place in front, as compilers write it. */
  @Override
  public String toString() {
    return String.format(
        "%s:%d:%d: %s%s", file, line, column, path.isEmpty() ? "" : path + ": ", message);
  }
}
