// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.berths;

import java.util.Deque;
import java.util.Optional;
import java.util.concurrent.ConcurrentLinkedDeque;

/** The berths that are free. Thread-safe. */
class Berths {

  private final Deque<String> free = new ConcurrentLinkedDeque<>();

  void add(String berth) {
    free.add(berth);
  }

  void clear() {
    free.clear();
  }

  Optional<String> take() {
    return Optional.ofNullable(free.poll());
  }
}
