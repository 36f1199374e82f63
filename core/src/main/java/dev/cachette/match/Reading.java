package dev.cachette.match;

import java.util.Optional;

/**
 * The result of parsing a body.
 *
 * @param value the parsed body; empty if parsing failed
 * @param problem why it failed; empty if it did not
 */
record Reading<T>(Optional<T> value, String problem) {

  static <T> Reading<T> of(T value) {
    return new Reading<>(Optional.of(value), "");
  }

  static <T> Reading<T> failed(String problem) {
    return new Reading<>(Optional.empty(), problem);
  }
}
