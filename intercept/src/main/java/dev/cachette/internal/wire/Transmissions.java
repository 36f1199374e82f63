package dev.cachette.internal.wire;

import java.util.HashSet;
import java.util.Set;

/**
 * The replies that take their time, being computed or being sent. All of it on the engine's thread.
 */
final class Transmissions {

  private final Set<Transmission> running = new HashSet<>();

  /** Calls whose replies are being computed. */
  private final Set<Peer> computing = new HashSet<>();

  void add(Transmission transmission) {
    running.add(transmission);
  }

  void remove(Transmission transmission) {
    running.remove(transmission);
  }

  void computing(Peer peer) {
    computing.add(peer);
  }

  void computed(Peer peer) {
    computing.remove(peer);
  }

  /**
   * Breaks all of them off. Some clients wait for ever where a connection closes in order with an
   * answer still due.
   */
  void endAll() {
    Set.copyOf(running).forEach(Transmission::breakOff);
    computing.forEach(Peer::reset);
  }

  /** Breaks off those whose test has ended. */
  void endThoseThatAreOver() {
    Set.copyOf(running).stream().filter(Transmission::isOver).forEach(Transmission::breakOff);
  }
}
