// SPDX-License-Identifier: Apache-2.0
package dev.cachette.stubfile;

/**
 * One problem in a stub file.
 *
 * @param file the file, as given
 * @param line its line, from 1
 * @param column its column, from 1
 * @param path the place in the tree, {@code stubs[0].answer.status}; empty for the whole file
 * @param message what is wrong, and how to fix it
 */
public record StubFileProblem(String file, int line, int column, String path, String message) {

  /** Returns the place, then the message, as compilers do. */
  @Override
  public String toString() {
    return String.format(
        "%s:%d:%d: %s%s", file, line, column, path.isEmpty() ? "" : path + ": ", message);
  }
}
