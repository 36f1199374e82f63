// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.yaml;

/** Receives the problems of a text while it is parsed. */
@FunctionalInterface
public interface ProblemListener {

  /**
   * Reports a problem.
   *
   * @param line its line, from 1
   * @param column its column, from 1
   * @param path its path from the root; empty for the whole text
   */
  void add(int line, int column, String path, String message);
}
