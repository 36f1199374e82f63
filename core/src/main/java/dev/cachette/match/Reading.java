package dev.cachette.match;

import java.util.Optional;

/**
 * What a body was read as, or why it could not be.
 *
 * @param value what was read; empty if it could not be
 * @param problem why not; empty text if it could
 */
record Reading<T>(Optional<T> value, String problem) {

  static <T> Reading<T> of(T value) {
    return new Reading<>(Optional.of(value), "");
  }

  static <T> Reading<T> failed(String problem) {
    return new Reading<>(Optional.empty(), problem);
  }
}
