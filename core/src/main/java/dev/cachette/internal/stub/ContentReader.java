package dev.cachette.internal.stub;

import dev.cachette.answer.Delivery;
import dev.cachette.http.Body;

/** Reads the files of answers: core itself has no file access. */
@FunctionalInterface
public interface ContentReader {

  /**
   * Returns the content of a file or resource.
   *
   * @throws IllegalArgumentException if it is missing or unreadable; the message says where it was
   *     expected
   */
  Body read(Delivery.Source source);
}
