// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;

/** The declared clients. If there are none, every client is known. Thread-safe. */
public final class Clients {

  private Map<String, ClientRecord> declared = new LinkedHashMap<>();

  /** Declares a client; no effect if there is one with this identifier. */
  public synchronized void declare(String id) {
    declared.computeIfAbsent(id, ClientRecord::of);
  }

  /** Changes what is declared of a client. */
  public synchronized void change(String id, UnaryOperator<ClientRecord> change) {
    declared.put(id, change.apply(declared.getOrDefault(id, ClientRecord.of(id))));
  }

  /** Returns true if clients that are not declared are refused. */
  synchronized boolean isStrict() {
    return !declared.isEmpty();
  }

  /** Returns the client with this identifier; empty if it is not known. */
  synchronized Optional<ClientRecord> known(String id) {
    return Optional.ofNullable(declared.get(id))
        .or(() -> isStrict() ? Optional.empty() : Optional.of(ClientRecord.of(id)));
  }

  /** Returns the identifiers, for messages. */
  synchronized String names() {
    return String.join(", ", declared.keySet());
  }

  /** Returns what is declared of all. */
  synchronized List<ClientRecord> all() {
    return List.copyOf(declared.values());
  }

  /** Returns all clients, to {@link #restore} them. */
  synchronized Map<String, ClientRecord> declared() {
    return new LinkedHashMap<>(declared);
  }

  /** Begins with another test. */
  synchronized void restore(Map<String, ClientRecord> before) {
    declared = new LinkedHashMap<>(before);
  }
}
