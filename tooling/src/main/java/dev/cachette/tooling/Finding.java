// SPDX-License-Identifier: Apache-2.0
package dev.cachette.tooling;

/**
 * A problem that a check has found.
 *
 * @param file the file
 * @param line its line, from 1
 * @param column its column, from 1
 * @param path the place in its tree; empty for the whole file
 * @param finding the problem
 */
public record Finding(String file, int line, int column, String path, String finding) {

  @Override
  public String toString() {
    return String.format(
        "%s:%d:%d: %s%s", file, line, column, path.isEmpty() ? "" : path + ": ", finding);
  }
}
