package dev.cachette.internal.wire;

import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;

/** The replies that are being computed or sent. Thread-safe. */
final class Transmissions {

  private final Set<Transmission> running = ConcurrentHashMap.newKeySet();

  /** Calls whose replies are being computed. */
  private final Set<Peer> computing = ConcurrentHashMap.newKeySet();

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
   * Aborts all of them. Some clients hang if a connection closes normally with an answer still due.
   */
  void endAll() {
    running.forEach(Transmission::breakOff);
    computing.forEach(Peer::reset);
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
