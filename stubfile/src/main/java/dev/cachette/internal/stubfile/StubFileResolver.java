// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import dev.cachette.answer.Answer;
import dev.cachette.answer.ResponseAnswer;

/** Resolves the files that a stub file names, relative to itself. */
public interface StubFileResolver {

  /** Returns an answer with the content of a file. */
  ResponseAnswer file(String name);

  /** Returns an answer from a cassette, like {@code CassetteFiles.recorded}. */
  ResponseAnswer recorded(String cassette, String requestLine);

  /**
   * Returns an answer with its file read.
   *
   * @throws IllegalArgumentException if it cannot be read
   */
  Answer ready(Answer answer);

  /**
   * Returns the full path of a file for request bodies.
   *
   * @throws IllegalArgumentException if it cannot be written
   */
  String writable(String name);

  /**
   * Checks that a stub may call the real service.
   *
   * @throws IllegalArgumentException if it may not
   */
  void requireRealService();
}
