// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.content;

import java.util.Optional;

/**
 * The result of parsing a body.
 *
 * @param <T> the type of the parsed body
 * @param value the parsed body; empty if parsing failed
 * @param problem why it failed; empty if it did not
 */
public record Reading<T>(Optional<T> value, String problem) {

  /** Returns a result. */
  public static <T> Reading<T> of(T value) {
    return new Reading<>(Optional.of(value), "");
  }

  /** Returns a failure. */
  public static <T> Reading<T> failed(String problem) {
    return new Reading<>(Optional.empty(), problem);
  }
}
