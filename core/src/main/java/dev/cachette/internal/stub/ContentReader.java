package dev.cachette.internal.stub;

import dev.cachette.answer.Delivery;
import dev.cachette.http.Body;

/** Reads the files that answers name: the core itself opens none. */
@FunctionalInterface
public interface ContentReader {

  /**
   * The content of a file or resource.
   *
   * @throws IllegalArgumentException if it is not there or cannot be read; the message says where
   *     it was looked for
   */
  Body read(Delivery.Source source);
}
