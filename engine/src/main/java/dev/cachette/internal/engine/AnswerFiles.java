// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.http.Body;
import dev.cachette.internal.answer.Delivery;

/** Reads the files of answers: core itself has no file access. */
@FunctionalInterface
public interface AnswerFiles {

  /**
   * Returns the content of a file or resource.
   *
   * @throws IllegalArgumentException if it is missing or unreadable; the message says where it was
   *     expected
   */
  Body read(Delivery.Source source);
}
