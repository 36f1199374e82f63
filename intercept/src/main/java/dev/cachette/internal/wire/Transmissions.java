package dev.cachette.internal.wire;

import java.util.HashSet;
import java.util.Set;

/** The replies that are being sent and take their time. All of it on the engine's thread. */
final class Transmissions {

  private final Set<Transmission> running = new HashSet<>();

  /** For those who ask from another thread. */
  private volatile boolean some;

  void add(Transmission transmission) {
    running.add(transmission);
    some = true;
  }

  void remove(Transmission transmission) {
    running.remove(transmission);
    some = !running.isEmpty();
  }

  /** Whether there are any; may be asked by any thread, and be outdated then. */
  boolean mayBeRunning() {
    return some;
  }

  /** Breaks off those whose test has ended. */
  void endThoseThatAreOver() {
    Set.copyOf(running).stream().filter(Transmission::isOver).forEach(Transmission::breakOff);
  }
}
