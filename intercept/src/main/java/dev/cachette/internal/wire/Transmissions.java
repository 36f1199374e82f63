// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import java.time.Duration;
import java.util.List;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;

/** The replies that are being decided, computed or sent. Thread-safe. */
final class Transmissions {

  private final Set<Transmission> running = ConcurrentHashMap.newKeySet();

  /** Calls whose replies are being decided or computed. */
  private final Set<Work> working = ConcurrentHashMap.newKeySet();

  void add(Transmission transmission) {
    running.add(transmission);
  }

  void remove(Transmission transmission) {
    running.remove(transmission);
  }

  void add(Work work) {
    working.add(work);
  }

  void remove(Work work) {
    working.remove(work);
  }

  /** One that was undecided is decided. */
  synchronized void decided() {
    notifyAll();
  }

  /**
   * Waits until it is decided about all calls that have arrived: what they turn out to be belongs
   * to their test. Gives up those that take longer, but none that arrives afterwards.
   *
   * @param atMost the longest wait
   */
  void awaitDecisions(Duration atMost) throws InterruptedException {
    undecidedAfter(atMost).forEach(Work::giveUp);
  }

  private synchronized List<Work> undecidedAfter(Duration atMost) throws InterruptedException {
    long end = System.nanoTime() + atMost.toNanos();
    long left = atMost.toNanos();
    List<Work> undecided = undecided();
    while (left > 0 && !undecided.isEmpty()) {
      wait(left / 1_000_000, (int) (left % 1_000_000));
      left = end - System.nanoTime();
      undecided = undecided();
    }
    return undecided;
  }

  private List<Work> undecided() {
    return working.stream().filter(Work::isUndecided).toList();
  }

  /**
   * Aborts all of them. Some clients hang if a connection closes normally with an answer still due.
   */
  void endAll() {
    running.forEach(Transmission::breakOff);
    working.forEach(Work::abandon);
  }

  /** Lets clients time out that wait for no answer. */
  void clockMoved() {
    running.forEach(Transmission::clockMoved);
  }

  /** Aborts those whose test has ended. */
  void endThoseThatAreOver() {
    running.stream().filter(Transmission::isOver).forEach(Transmission::breakOff);
  }
}
